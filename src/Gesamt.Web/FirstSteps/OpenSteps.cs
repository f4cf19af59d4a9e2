using System.Collections.Immutable;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.FirstSteps;

/// <summary>What a new studio is asked to look at, each in its own time.</summary>
public enum FirstStep
{
    /// <summary>Choosing what to begin with.</summary>
    Choose,

    /// <summary>What belongs to each kind of work.</summary>
    Work,
    Prices,
    Hours,
    Mail,

    /// <summary>Putting the inquiry form on the studio's site.</summary>
    Form,
}

/// <summary>A step that is still open.</summary>
/// <param name="Words">What there is to do and what it is for.</param>
/// <param name="To">The page where it is done.</param>
public sealed record FirstStepDto(FirstStep Step, string Title, string Words, string To);

/// <summary>The first hour of a studio: short steps that can be left and found again until each is done, by doing it or by saying so.</summary>
public static class OpenSteps
{
    /// <summary>Open when a studio is laid.</summary>
    public static readonly ImmutableArray<FirstStep> Begun = [FirstStep.Choose];

    /// <summary>Open once it was chosen what to begin with.</summary>
    private static readonly ImmutableArray<FirstStep> Chosen =
    [
        FirstStep.Work,
        FirstStep.Prices,
        FirstStep.Hours,
        FirstStep.Mail,
        FirstStep.Form,
    ];

    /// <summary>The open steps in their order; none in a studio that is set up.</summary>
    public static IReadOnlyList<FirstStepDto> Of(Desk desk) => [.. Open(desk.Studio.FirstSteps).Select(Told)];

    /// <summary>Notes that a step is done; what was never open, or is done already, stays so.</summary>
    public static async Task DoneAsync(Desk desk, FirstStep step)
    {
        var studio = await desk.Db.Studio.SingleAsync();
        var open = Open(studio.FirstSteps);
        if (!open.Contains(step))
            return;
        var left = step == FirstStep.Choose ? Chosen : open.Remove(step);
        studio.FirstSteps = left.IsEmpty ? null : StoreJson.Write(left);
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>Puts a step back that was said to be done.</summary>
    public static async Task OpenAgainAsync(Desk desk, FirstStep step)
    {
        var studio = await desk.Db.Studio.SingleAsync();
        var open = Open(studio.FirstSteps);
        if (!Chosen.Contains(step) || open.Contains(step))
            return;
        studio.FirstSteps = StoreJson.Write(open.Add(step).Order().ToImmutableArray());
        await desk.Db.SaveChangesAsync();
    }

    private static ImmutableArray<FirstStep> Open(string? stored) =>
        stored is null ? [] : StoreJson.Read<ImmutableArray<FirstStep>>(stored);

    private static FirstStepDto Told(FirstStep step) =>
        step switch
        {
            FirstStep.Choose => new(
                step,
                "What you begin with",
                "Take a starting set for your trade, or begin with nothing.",
                "/begin"
            ),
            FirstStep.Work => new(
                step,
                "Your work",
                "Read through your kinds of work: their words, phases and questions.",
                "/templates"
            ),
            FirstStep.Prices => new(
                step,
                "Your prices",
                "Those of a starting set are examples. Proposals are made of yours.",
                "/templates#services"
            ),
            FirstStep.Hours => new(
                step,
                "Your hours",
                "When clients can choose a time with you, and when letters leave.",
                "/studio#hours"
            ),
            FirstStep.Mail => new(
                step,
                "Your mail",
                "Until your mail servers are set, letters stay in this program’s own post office.",
                "/studio#mail"
            ),
            FirstStep.Form => new(
                step,
                "Your form on your site",
                "The address of your inquiry form, and the line that puts it into your own page.",
                "/templates#forms"
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(step), step, "No such step."),
        };
}
