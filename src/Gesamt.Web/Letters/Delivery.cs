using Gesamt.Core;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Core.Routines;
using Gesamt.Formats.Mail;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>The second and third step of sending: hand over, and confirm. One at a time; what was begun before a restart is asked of the carrier first.</summary>
public sealed class Delivery(
    IServiceScopeFactory scopes,
    ICarrier carrier,
    Links links,
    SignCodes codes,
    ILogger<Delivery> log
)
{
    /// <summary>Hands over everything claimed whose time has come.</summary>
    /// <param name="rehearsal">A rehearsal, whose own clock says what is due; else all real projects.</param>
    public async Task DeliverDueAsync(CancellationToken stop, ProjectId? rehearsal = null) =>
        await Independent.EachAsync(
            log,
            "letter on its way",
            await DueAsync(rehearsal),
            id => DeliverAsync(id, stop),
            stop
        );

    private async Task<List<int>> DueAsync(ProjectId? rehearsal)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        if (rehearsal is not { } project)
            return await Due(desk.Db, desk.Now);
        await desk.OpenAsync(project);
        return await DueOf(desk.Db, desk.Now, project);
    }

    private static readonly Func<GesamtDb, Instant, Task<List<int>>> Due = Prepared.Rows(
        (GesamtDb db, Instant now) =>
            db
                .Outbox.Where(o => o.State == OutboxState.Claimed && o.NotBefore <= now)
                .Where(o => !db.RehearsalIds.Contains(o.ProjectId))
                .OrderBy(o => o.Id)
                .Select(o => o.Id)
    );

    private static readonly Func<GesamtDb, Instant, ProjectId, Task<List<int>>> DueOf = Prepared.Rows(
        (GesamtDb db, Instant now, ProjectId rehearsal) =>
            db
                .Outbox.Where(o => o.State == OutboxState.Claimed && o.NotBefore <= now && o.ProjectId == rehearsal)
                .OrderBy(o => o.Id)
                .Select(o => o.Id)
    );

    private async Task DeliverAsync(int id, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        // taken back a moment ago
        if (await desk.Db.Outbox.AsNoTracking().SingleOrDefaultAsync(o => o.Id == id, stop) is not { } outgoing)
            return;
        if (outgoing.HandOverBegan is not null)
        {
            // begun before a restart: only the carrier can tell whether it got there
            var known = await carrier.KnowsAsync(outgoing.MessageId, stop);
            if (known is not false)
            {
                await SettleAsync(
                    id,
                    known is true
                        ? new HandOver.Accepted()
                        : new HandOver.Unknown("Gesamt was stopped while it was handed over.")
                );
                return;
            }
        }
        // before anything is noted: what cannot be written was never handed over, and must not be taken for it
        var written = await WriteAsync(desk, outgoing);
        var begun = await BeginAsync(desk, id, written);
        if (begun.Refusal is { } refusal)
            await SettleAsync(id, new HandOver.Refused(refusal));
        if (!begun.Goes)
            return;
        KillPoints.Reach("hand-over-begun");
        var answer = await HandOverAsync(desk, outgoing, written.Message!, stop);
        KillPoints.Reach("handed-over");
        await SettleAsync(id, answer);
        KillPoints.Reach("confirmed");
    }

    /// <summary>A rehearsal's letter stays in the house, or goes to the owner's own address with a word that says what it is.</summary>
    private async Task<HandOver> HandOverAsync(Desk desk, OutboxRow outgoing, byte[] message, CancellationToken stop)
    {
        var row = await desk
            .Db.AllProjects.AsNoTracking()
            .Where(p => p.Id == outgoing.ProjectId)
            .Select(p => new { p.Rehearsal, p.ToOwner })
            .SingleAsync(stop);
        if (!row.Rehearsal)
            return await carrier.SendAsync(outgoing.MessageId, message, stop);
        return row.ToOwner
            ? await carrier.SendAsync(
                outgoing.MessageId,
                OutgoingMail.Readdress(message, (desk.Studio.Owner, desk.Studio.Mail), "Rehearsal: "),
                stop
            )
            : new HandOver.Accepted();
    }

    /// <param name="Message">The finished message with the address of its link; null where there is none.</param>
    /// <param name="To">The address it is written to.</param>
    /// <param name="Refusal">Why there is none.</param>
    private sealed record Finished(byte[]? Message, string To, string? Refusal);

    /// <summary>Writes the message of a letter, to the address its reader has by now.</summary>
    private async Task<Finished> WriteAsync(Desk desk, OutboxRow outgoing)
    {
        var letter = await desk
            .Db.Letters.AsNoTracking()
            .Include(l => l.Files)
            .SingleAsync(l => l.Id == outgoing.LetterId);
        (letter.MessageId, letter.ToMail) = (outgoing.MessageId, await AddressAsync(desk, letter));
        var project = await desk.Db.AllProjects.AsNoTracking().SingleAsync(p => p.Id == outgoing.ProjectId);
        byte[] message;
        try
        {
            await InvoiceFiles.AddAsync(desk, letter);
            message = Sending.Compose(desk, project, letter);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            log.LogError(e, "A file that goes with letter {Letter} cannot be read", letter.Id.Value);
            return new(
                null,
                letter.ToMail,
                "A file that goes with it cannot be read any more. Take it out, or choose it again."
            );
        }
        if (
            SignCodes.MentionedIn(letter.Body) is { } code
            // whoever gets a letter into which others wrote gets no code but their own
            && await desk
                .Db.SignCodes.AsNoTracking()
                .SingleOrDefaultAsync(c => c.Id == code && c.PersonId == letter.ToPerson)
                is { } row
        )
            message = OutgoingMail.Replace(message, SignCodes.PlaceholderOf(row), codes.CodeOf(row));
        if (!Sending.MentionsLink(letter.Body))
            return new(message, letter.ToMail, null);
        var link = await Links.OfAsync(desk.Db, project.Id, letter.ToPerson ?? project.ClientId);
        // the page was closed since: better held with a word than a link that opens nothing
        return link.EndedAt is null
            ? new(OutgoingMail.Replace(message, Blanks.LinkPlaceholder, links.AddressOf(link)), letter.ToMail, null)
            : new(null, letter.ToMail, Links.Closed);
    }

    /// <summary>Rechecks everything, and notes that the hand-over begins; otherwise the letter stays here, with what the owner has to know of it.</summary>
    private static Task<(bool Goes, string? Refusal)> BeginAsync(Desk desk, int id, Finished written) =>
        desk.ActAsync<(bool, string?)>(async act =>
        {
            // taken back while it was written
            if (
                await act.Db.Outbox.SingleOrDefaultAsync(o => o.Id == id) is not { State: OutboxState.Claimed } outgoing
            )
                return (false, null);
            var letter = await act.Db.Letters.SingleAsync(l => l.Id == outgoing.LetterId);
            var file = await act.OpenAsync(outgoing.ProjectId);
            if (letter.State != LetterState.Ready || await StoppedAsync(act, letter, file))
            {
                outgoing.State = OutboxState.Withdrawn;
                return (false, null);
            }
            if ((await Sending.OvertakenAsync(desk, letter, file) ?? written.Refusal) is { } refusal)
                return (false, refusal);
            letter.ToMail = written.To;
            outgoing.HandOverBegan = act.Now;
            return (true, null);
        });

    /// <summary>A step whose stop rule came true between claim and hand-over stays here, and the line says why.</summary>
    private static async Task<bool> StoppedAsync(Act act, LetterRow letter, ProjectFile file)
    {
        if (Sending.StepOf(letter) is not { } step)
            return false;
        var planned = Plan.Of(file.Case).FirstOrDefault(p => p.Ref == step);
        if (planned is null || DueSteps.MayLeave(planned, act.Now))
            return false;
        letter.State = planned.State == StepState.Skipped ? LetterState.Skipped : LetterState.Stopped;
        if (planned is { State: StepState.Stopped, Since: null, Why: { } why })
            await act.RecordAsync(file, Actor.Gesamt, new Happening.StepStopped(step, why));
        // what was claimed and is not true any more is named as that
        else if (planned.State == StepState.Planned)
            await act.RecordAsync(
                file,
                Actor.Gesamt,
                new Happening.StepStopped(step, planned.IsTrue ? StopRule.Past : StopRule.NotTheirs)
            );
        return true;
    }

    /// <summary>The address the person it goes to has by now; the letter follows them.</summary>
    private static async Task<string> AddressAsync(Desk desk, LetterRow letter) =>
        letter.ToPerson is { } person
        && await desk.Db.People.AsNoTracking().Where(p => p.Id == person).Select(p => p.Mail).SingleOrDefaultAsync()
            is { } mail
            ? mail
            : letter.ToMail;

    private async Task SettleAsync(int id, HandOver answer)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        await desk.ActAsync(async act =>
        {
            if (
                await desk.Db.Outbox.SingleOrDefaultAsync(o => o.Id == id)
                is not { State: OutboxState.Claimed } outgoing
            )
                return;
            var letter = await desk.Db.Letters.SingleAsync(l => l.Id == outgoing.LetterId);
            var file = await desk.OpenAsync(outgoing.ProjectId);
            switch (answer)
            {
                case HandOver.Accepted:
                    outgoing.State = OutboxState.Confirmed;
                    (letter.State, letter.At) = (LetterState.Sent, desk.Now);
                    await act.RecordAsync(
                        file,
                        letter.ByItself ? Actor.Gesamt : Actor.Owner,
                        await Sending.SentAsync(desk, letter, file)
                    );
                    if (ContractState.Open(file.History) is { } open && open.What.Contract == letter.SendsVersion)
                        await Signing.GiveBeforehandAsync(
                            act,
                            file,
                            await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == open.What.Contract)
                        );
                    break;
                case HandOver.NotTaken notTaken:
                    outgoing.HandOverBegan = null;
                    outgoing.Failures++;
                    outgoing.LastError = notTaken.Why;
                    outgoing.NotBefore = desk.Now + Duration.FromMinutes(Math.Pow(2, Math.Min(outgoing.Failures, 8)));
                    break;
                case HandOver.Refused refused:
                    // trying again would be refused again: the owner sees why, mends it and sends it anew
                    desk.Db.Outbox.Remove(outgoing);
                    (letter.MessageId, letter.Problem, letter.State) = (
                        null,
                        refused.Why,
                        letter.Step is null ? LetterState.Draft : LetterState.Held
                    );
                    await act.RecordAsync(
                        file,
                        Actor.Gesamt,
                        [
                            new Happening.LetterRefused(letter.Id),
                            .. Sending.StepOf(letter) is { } again
                                ? [new Happening.StepHeld(again, letter.Id)]
                                : Array.Empty<Happening>(),
                        ]
                    );
                    break;
                case HandOver.Unknown unknown:
                    // it cannot be asked again: better named as uncertain than sent twice
                    outgoing.State = OutboxState.Uncertain;
                    outgoing.LastError = unknown.Why;
                    letter.State = LetterState.Uncertain;
                    await act.RecordAsync(
                        file,
                        Actor.Gesamt,
                        [
                            new Happening.LetterUncertain(letter.Id),
                            .. Sending.StepOf(letter) is { } step
                                ? [new Happening.StepDone(step, letter.Id)]
                                : Array.Empty<Happening>(),
                        ]
                    );
                    break;
                default:
                    throw new ArgumentOutOfRangeException(nameof(answer), answer, "No such answer.");
            }
        });
    }
}
