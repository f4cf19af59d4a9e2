using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Routines;

namespace Gesamt.Web.Templates;

/// <summary>How the client behaves: days from the beginning until they act; null is never.</summary>
public sealed record ClientWaysDto(int? Opens, int? Answers, int? Chooses, int? Signs, int? Pays, int? ReturnsForm);

/// <summary>A routine to be looked at on a project, and how its client is supposed to act.</summary>
public sealed record RehearseDto(int Routine, long Project, ClientWaysDto Ways);

/// <param name="When">Null for what waits for a date or a cause that does not come.</param>
/// <param name="Words">What happens, as a sentence.</param>
/// <param name="Subject">The letter it would send, filled from the record as it is now.</param>
/// <param name="To">Whom it would go to.</param>
public sealed record RehearsedDto(
    string? When,
    string? Day,
    RehearsedAct Act,
    string Words,
    string? To,
    string? Subject,
    string? Body,
    string? Gaps
);

/// <summary>A routine played through for a project, up to its end. Nothing is recorded and nothing leaves the house.</summary>
public static class RehearsalView
{
    private const int LongestDays = 3_650;

    /// <exception cref="InvalidException">A number of days is not from 0 to 3650.</exception>
    public static async Task<IReadOnlyList<RehearsedDto>> PlayAsync(Desk desk, RehearseDto rehearse)
    {
        var ways = rehearse.Ways;
        var wrong = new[]
        {
            ("opens", ways.Opens),
            ("answers", ways.Answers),
            ("chooses", ways.Chooses),
            ("signs", ways.Signs),
            ("pays", ways.Pays),
            ("returnsForm", ways.ReturnsForm),
        }
            .Where(w => w.Item2 is < 0 or > LongestDays)
            .Select(w => ($"ways.{w.Item1}", $"From 0 to {LongestDays} days, or nothing for never."))
            .ToArray();
        if (wrong.Length > 0)
            throw new InvalidException(wrong);
        var row = await RoutineNames.RowAsync(desk, rehearse.Routine);
        var file = await desk.OpenAsync(new(rehearse.Project));
        var project = file.Case with { Traits = await ProjectFiles.TraitsAsync(desk.Db, file.Row) };
        var names = (await RoutineNames.OfAsync(desk)).For(file.Case.Kind.MainDate);
        var played = Rehearsal.Play(
            project,
            Store.Json.StoreJson.Read<Routine>(row.Routine),
            new(ways.Opens, ways.Answers, ways.Chooses, ways.Signs, ways.Pays, ways.ReturnsForm),
            desk.Now
        );
        List<RehearsedDto> told = [];
        foreach (var one in played)
            told.Add(await OfAsync(desk, file, names, one));
        return told;
    }

    private static async Task<RehearsedDto> OfAsync(Desk desk, ProjectFile file, IRoutineNames names, Rehearsed one)
    {
        var (when, day) = one.At is { } at
            ? (
                RoutineTexts.When(desk, at),
                desk.Calendar.DateOf(at).ToString("uuuu-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
            )
            : (null, (string?)null);
        if (one.Client is { } act)
            return new(when, day, one.Act, ClientWords(act), null, null, null, null);
        var what = RoutineWords.What(one.Step!.Action, names);
        var words = one.Act switch
        {
            RehearsedAct.Acts => $"{what}, by itself",
            RehearsedAct.AsksFirst => $"{what}, after your OK",
            RehearsedAct.Skipped => $"{what}: skipped, its time is past",
            RehearsedAct.Stopped => $"{what}: stopped, {RoutineWords.Word(one.Why!.Value)}",
            _ => one.WaitsFor is { } waits
                ? $"{what}: waits until {waits}"
                : $"{what}: waits, {RoutineWords.When(one.Step.When, names)}",
        };
        if (one.Act is not (RehearsedAct.Acts or RehearsedAct.AsksFirst) || one.Step.Action.LetterKey is not { } key)
            return new(when, day, one.Act, words, null, null, null, null);
        var with = one.Step.Action is StepAction.MeetingChoice choice
            ? record => record with { Meeting = choice.Kind.ToLowerInvariant() }
            : (Func<Core.Letters.RecordWords, Core.Letters.RecordWords>?)null;
        var filled = await Writing.FillAsync(desk, file, key, with);
        return new(
            when,
            day,
            one.Act,
            words,
            file.MailContact.Mail is { } mail
                ? $"{file.MailContact.Name}, {mail}"
                : $"{file.MailContact.Name}, who has no mail address: it would wait",
            filled.Subject,
            LetterEndpoints.Shown(filled.Body),
            filled.Gaps.Count > 0 ? string.Join(", ", filled.Gaps) : null
        );
    }

    private static string ClientWords(ClientAct act) =>
        act switch
        {
            ClientAct.Opens => "the client opens the proposal",
            ClientAct.Answers => "the client answers",
            ClientAct.Chooses => "the client chooses",
            ClientAct.Signs => "the client signs",
            ClientAct.Pays => "the client pays",
            ClientAct.ReturnsForm => "the client returns the form",
            _ => throw new ArgumentOutOfRangeException(nameof(act), act, "No such act."),
        };
}
