using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Rehearsals;

/// <param name="ToOwner">Its letters go to the owner's own address; else they stay in the house.</param>
public sealed record NewRehearsalDto(long Kind, string Name, LocalDate? Date, bool ToOwner);

/// <summary>A rehearsal with its own clock.</summary>
public sealed record RehearsalDto(long Id, string Title, string Kind, string Clock, string Words, bool ToOwner);

/// <param name="To">The studio's local time to wind to; null winds to the next thing that is due.</param>
public sealed record WindDto(LocalDateTime? To);

/// <param name="Acted">Whether anything acted; nothing lies ahead otherwise.</param>
public sealed record WoundDto(string Clock, bool Acted);

/// <summary>Whole projects to try things on: they live like any other, but nothing leaves the house, they count nowhere, and each has a clock of its own that is wound by hand.</summary>
public sealed class Rehearsals(IServiceScopeFactory scopes, Live live, Delivery delivery)
{
    private const int MostTurns = 500;

    public static void MapRehearsals(RouteGroupBuilder api)
    {
        api.MapGet(
            "/rehearsals",
            async (Desk desk) =>
                (
                    await desk
                        .Db.AllProjects.AsNoTracking()
                        .Include(p => p.Kind)
                        .Where(p => p.Rehearsal && !p.Standing.PutAway)
                        .OrderByDescending(p => p.Id)
                        .Take(50)
                        .ToListAsync()
                )
                    .Select(p => new RehearsalDto(
                        p.Id.Value,
                        p.Title,
                        p.Kind!.Name,
                        Clock(desk, p),
                        p.Standing.Words,
                        p.ToOwner
                    ))
                    .ToList()
        );
        api.MapPost(
            "/rehearsals",
            async (NewRehearsalDto make, Desk desk) => new CreatedDto((await MakeAsync(desk, make)).Value)
        );
        api.MapPost("/rehearsals/practice", async (Desk desk) => new CreatedDto((await PractiseAsync(desk)).Value));
        api.MapPost(
            "/projects/{id:long}/wind",
            (long id, WindDto wind, Rehearsals rehearsals, CancellationToken stop) =>
                rehearsals.WindAsync(new(id), wind.To, stop)
        );
        api.MapGet(
            "/projects/{id:long}/rehearsed-page",
            async (long id, Desk desk, Links links) =>
            {
                var file = await OpenAsync(desk, new(id));
                return new RehearsedPageDto(links.AddressOf(await Links.OfAsync(desk.Db, file.Id, file.Row.ClientId)));
            }
        );
    }

    /// <summary>A rehearsal of the first kind of work, to learn by.</summary>
    /// <exception cref="RefusedException">There is no kind yet.</exception>
    private static async Task<ProjectId> PractiseAsync(Desk desk)
    {
        var kind =
            await desk.Db.Kinds.AsNoTracking().Where(k => !k.Removed).OrderBy(k => k.Position).FirstOrDefaultAsync()
            ?? throw new RefusedException("Add a kind of work first, under Templates: a project begins with one.");
        var dated = StoreJson.Read<KindRules>(kind.Rules).MainDate.Length > 0;
        return await MakeAsync(
            desk,
            new(kind.Id.Value, PracticeClient, dated ? desk.Today.PlusMonths(PracticeMonths) : null, ToOwner: false)
        );
    }

    private const string PracticeClient = "Robin Sample";
    private const int PracticeMonths = 4;

    private static async Task<ProjectId> MakeAsync(Desk desk, NewRehearsalDto make)
    {
        if (make.Name.Trim().Length is 0 or > 120)
            throw new InvalidException(("name", "A name of 1 to 120 characters is needed."));
        if (!MailAddress.IsValid(desk.Studio.Mail))
            throw new RefusedException("Give the studio a mail address first.");
        return await desk.ActAsync(async act =>
        {
            // somebody who is nobody: their address leads nowhere (RFC 6761, 6.5)
            var person = new PersonRow
            {
                Name = make.Name.Trim(),
                Mail = "rehearsal@example.invalid",
                RemovedAt = desk.Now,
            };
            var row = await Inquiry.AddAsync(
                desk,
                new(make.Kind),
                person,
                new($"Rehearsal: {make.Name.Trim()}", null, null),
                rehearsal: true
            );
            (row.ToOwner, row.WoundTo) = (make.ToOwner, desk.Now);
            await desk.Db.SaveChangesAsync();
            var file = await desk.OpenAsync(row.Id);
            await act.RecordAsync(
                file,
                Actor.Client,
                [
                    new Happening.InquiryCame(null),
                    .. make.Date is { } date
                        ? new Happening[] { new Happening.DateSet(file.Case.Kind.MainDate, date, null) }
                        : [],
                ]
            );
            return row.Id;
        });
    }

    /// <summary>Winds a rehearsal's clock on; all that is due until then acts, each at its own time.</summary>
    /// <exception cref="RefusedException">It is no rehearsal.</exception>
    /// <exception cref="InvalidException">The time is behind its clock, or more than ten years ahead.</exception>
    public async Task<WoundDto> WindAsync(ProjectId id, LocalDateTime? to, CancellationToken stop)
    {
        var (now, next, until) = await InScopeAsync(
            null,
            async desk =>
            {
                var file = await OpenAsync(desk, id);
                var target = to is { } local ? desk.Calendar.At(local) : (Instant?)null;
                if (target is { } at && (at < desk.Now || at > desk.Now + Duration.FromDays(3_660)))
                    throw new InvalidException(("to", "A time after the rehearsal's own clock, at most ten years on."));
                return (
                    desk.Now,
                    DueSteps.Of(file.Case, desk.Now).Length > 0 ? desk.Now : await NextAsync(desk, file, desk.Now),
                    target
                );
            }
        );
        var acted = false;
        for (var turn = 0; turn < MostTurns && (next ?? until) is { } at && (until is null || at <= until); turn++)
        {
            await TurnAsync(id, at, stop);
            acted = true;
            now = at;
            if (until is null)
                break;
            next = await InScopeAsync(at, async desk => await NextAsync(desk, await OpenAsync(desk, id), at));
            if (next is null)
                break;
        }
        if (until is { } end && end > now)
            await TurnAsync(id, end, stop);
        live.Changed(id);
        return await InScopeAsync(
            until ?? now,
            async desk => new WoundDto(Clock(desk, (await OpenAsync(desk, id)).Row), acted)
        );
    }

    /// <summary>One moment of the rehearsal: steps, invoices, standing, and letters that leave it.</summary>
    private async Task TurnAsync(ProjectId id, Instant at, CancellationToken stop)
    {
        await InScopeAsync(
            at,
            desk =>
                desk.Db.AllProjects.Where(p => p.Id == id && (p.WoundTo == null || p.WoundTo < at))
                    .ExecuteUpdateAsync(set => set.SetProperty(p => p.WoundTo, at), stop)
        );
        await InScopeAsync(at, desk => Steps.ActAsync(desk, id));
        await InScopeAsync(at, desk => InstalmentInvoices.IssueDueAsync(desk, id));
        await delivery.DeliverDueAsync(stop, id);
        await InScopeAsync(at, desk => Steps.ActAsync(desk, id));
        await InScopeAsync(
            at,
            desk => desk.ActAsync(async act => await act.RecordAsync(await desk.OpenAsync(id), Actor.Gesamt))
        );
    }

    /// <summary>When something comes next: a letter on its way, a step, or an invoice.</summary>
    private static async Task<Instant?> NextAsync(Desk desk, Store.Projects.ProjectFile file, Instant now)
    {
        var letter = await desk
            .Db.Outbox.Where(o => o.ProjectId == file.Id && o.State == OutboxState.Claimed)
            .Select(o => (Instant?)o.NotBefore)
            .MinAsync();
        var ahead = Plan.Of(file.Case)
            .Where(step => step.State == StepState.Planned)
            .Select(step => step.Due)
            .Append(Core.Invoicing.Billing.NextAt(file.Case))
            .Where(at => at > now)
            .Min();
        return letter is { } goes && (ahead is null || goes < ahead)
            ? goes > now
                ? goes
                : now
            : ahead;
    }

    private static async Task<Store.Projects.ProjectFile> OpenAsync(Desk desk, ProjectId id) =>
        await desk.OpenAsync(id) is { Row.Rehearsal: true } file
            ? file
            : throw new RefusedException("This is no rehearsal: its clock is everybody's.");

    private static string Clock(Desk desk, ProjectRow row)
    {
        var local = desk.Calendar.LocalOf(row.WoundTo is { } wound && wound > desk.Now ? wound : desk.Now);
        return $"{DateWords.Short(local.Date, desk.Today)}, {DateWords.Time(local.TimeOfDay)}";
    }

    private Task InScopeAsync(Instant? at, Func<Desk, Task> act) =>
        InScopeAsync(
            at,
            async desk =>
            {
                await act(desk);
                return true;
            }
        );

    private async Task<T> InScopeAsync<T>(Instant? at, Func<Desk, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        if (at is { } wound)
            desk.Wind(wound);
        return await act(desk);
    }
}

/// <summary>Where its client’s page is.</summary>
public sealed record RehearsedPageDto(string Address);
