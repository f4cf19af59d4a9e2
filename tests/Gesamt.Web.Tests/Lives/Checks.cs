using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What must hold after every act of a life.</summary>
public sealed class Checks(Life life)
{
    private static readonly string[] Pages =
    [
        "/api/today",
        "/api/turns",
        "/api/register",
        "/api/people",
        "/api/tray",
        "/api/routines",
        "/api/search?words=lantern",
        "/api/studio",
        "/api/meeting-kinds",
        "/api/rehearsals",
        "/api/sessions",
        "/api/invoices",
        "/api/bank",
        "/api/week",
        "/api/season",
        "/api/reports",
        "/api/reports?year=all&by=Service",
        "/api/reports/projects?year=all&of=Came",
        "/api/goals",
        "/api/money",
        "/api/money?year=all&as=Billed",
        "/api/money/parts?year=all",
        "/api/money/tax",
        "/api/money/years",
        "/api/accounts",
        "/api/bank/out",
    ];
    private static readonly string[] SeldomPages =
    [
        "/api/letter-texts",
        "/api/month",
        "/api/week?beside=Project",
        "/api/came-in",
        "/api/cover",
        "/api/register?only=Late",
        "/api/register?only=DueThisWeek",
        "/api/task-lists",
        "/api/work-clock",
        "/api/kinds",
        "/api/calendars",
        "/api/hooks",
        "/api/keys",
        "/api/imports",
        "/api/labels",
        "/api/post-office",
        "/api/register.csv",
        "/api/people.csv",
        "/api/people.vcf",
        "/api/mail-account",
    ];

    private readonly Dictionary<long, string> facts = [];
    private readonly Dictionary<long, string> versions = [];
    private readonly Dictionary<string, string> papers = [];
    private readonly HashSet<long> sent = [];
    private int round;

    /// <summary>How often each kind of fact happened in this life.</summary>
    public IReadOnlyDictionary<string, int> Facts =>
        facts.Values.GroupBy(text => text.Split(' ')[1]).ToDictionary(same => same.Key, same => same.Count());

    public async Task HoldAsync(bool last = false)
    {
        round++;
        var raw = new RawStudio(Path.Combine(life.Studio.Data, "gesamt.db"));
        var touched = raw.Facts.Where(f => !facts.ContainsKey(f.Id)).Select(f => f.Project).Distinct().ToList();
        if (life.Studio.Mishaps.Take() is [var mishap, ..])
            Fail($"Written down as gone wrong: {mishap}");
        NothingIsGone(raw);
        foreach (var (what, isThere) in last ? life.Confirmed : life.Confirmed.TakeLast(3).ToList())
            if (!await isThere())
                Fail($"Gone although it was confirmed: {what}");
        Counts(raw);
        await BankAsync();
        await SpentAsync();
        await CountedAsync();
        Letters(raw);
        await PagesAsync(raw, last ? [.. raw.Projects.Select(p => p.Id)] : touched, last || round % 10 == 0);
    }

    private static void Fail(string what) => throw new LifeException(what);

    /// <summary>Facts and sealed papers are never changed or taken away.</summary>
    private void NothingIsGone(RawStudio raw)
    {
        var now = raw.Facts.ToDictionary(
            f => f.Id,
            // of who was erased it stays what happened, and names nobody
            f =>
                $"{f.Project} {f.Kind} {f.Happened} {f.Recorded} {f.By} {(life.Erased.Contains(f.Project) ? "" : f.Of.ToJsonString())}"
        );
        foreach (var (id, was) in facts)
            if (!now.TryGetValue(id, out var still))
                Fail($"The fact {id} is gone: {was}");
            else if (still != was && !(still.EndsWith(' ') && was.StartsWith(still, StringComparison.Ordinal)))
                Fail($"The fact {id} was changed: {was} is {still}");
        foreach (var (id, text) in now)
            facts[id] = text;
        foreach (var version in raw.Versions)
        {
            if (!Recount.IsSealed(version))
                Fail($"Version {version.Id} is not what its hash says");
            if (
                versions.TryGetValue(version.Id, out var hash)
                && hash != version.Hash
                && !life.Erased.Contains(version.Project)
            )
                Fail($"Version {version.Id} was changed");
            versions[version.Id] = version.Hash;
        }
        foreach (var id in versions.Keys.Where(id => raw.Versions.All(v => v.Id != id)))
            Fail($"Version {id} is gone");
    }

    private void Counts(RawStudio raw)
    {
        var byProject = raw.Facts.ToLookup(f => f.Project);
        var today = life.Today.ToString("uuuu-MM-dd", null);
        foreach (var project in raw.Projects)
        {
            var count = new Recount(project, byProject[project.Id]);
            Same(project, "stage", count.Stage, project.Stage);
            Same(project, "end", count.Ended ?? "", project.Ended ?? "");
            Same(project, "price", count.Agreed ?? 0, project.Agreed ?? 0);
            Same(project, "paid", count.Paid, project.Paid);
            Same(project, "owed", count.Owed, project.Owed);
            // whether a payment that came back had made the win takes the whole rule
            if (byProject[project.Id].All(f => f.Kind != "PaymentChargedBack"))
                Same(project, "booked", count.Booked, project.Booked);
            Same(
                project,
                "owed on its invoices",
                count.Owed,
                raw.Invoices.Where(i => i.Project == project.Id && i.Sort == "Invoice").Sum(i => Math.Max(0, i.Owed))
            );
            foreach (var fact in byProject[project.Id].Where(f => f.Kind is "InvoiceIssued" or "InvoiceCredited"))
                if (
                    raw.Invoices.SingleOrDefault(i =>
                        i.Id == fact.Number(fact.Kind == "InvoiceIssued" ? "invoice" : "note")
                    )?.Total != fact.Minor("amount")
                )
                    Fail($"The paper of {fact.Kind} {fact.Id} says another sum than its fact, {fact.Minor("amount")}");
            if (Recount.BilledOtherwise(byProject[project.Id]) is { } otherwise)
                Fail($"Project {project.Id}: {otherwise}");
            // a rehearsal's clock is its own
            if (
                !project.Rehearsal
                && count.Turn(life.Now.ToUnixTimeTicks(), today, raw.OpenTasks.Where(t => t.Project == project.Id))
                    is { } turn
            )
                Same(project, "turn", turn, project.Turn);
        }
    }

    /// <summary>A line of the bank that is booked is booked whole, and once; what was charged back since was booked too.</summary>
    private async Task BankAsync()
    {
        var wrong = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .BankLines.Where(l =>
                        (l.State == Store.Model.BankLineState.Booked ? l.AmountMinor : 0)
                        != db.BankBookings.Where(b => b.LineId == l.Id)
                            .Join(db.Payments, b => b.PaymentId, p => p.Id, (_, p) => p.AmountMinor)
                            .Sum()
                    )
                    .Select(l => l.Id.Value)
                    .ToListAsync()
        );
        if (wrong.Count > 0)
            Fail($"Lines of the bank are booked with other sums than theirs: {string.Join(", ", wrong)}");
    }

    /// <summary>How long inquiries took is counted of every inquiry, and of nothing else.</summary>
    private async Task CountedAsync()
    {
        var astray = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Stays.Join(
                        db.Projects.IgnoreQueryFilters(),
                        stay => stay.ProjectId,
                        project => project.Id,
                        (stay, project) =>
                            new
                            {
                                project.Id,
                                stay.BeganAt,
                                Came = project.Rehearsal || project.Standing.Ended == EndReason.NotAnInquiry
                                    ? null
                                    : project.Standing.BeganAt,
                            }
                    )
                    .Where(one => one.BeganAt != one.Came)
                    .Select(one => one.Id)
                    .ToListAsync()
        );
        if (astray.Count > 0)
            Fail($"The stays of project {astray[0].Value} are counted by another day than it came");
    }

    /// <summary>Kept hours and costs stand on one invoice at most that asks for anything, by the papers themselves.</summary>
    private async Task SpentAsync()
    {
        var (snapshots, credited) = await life.Studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) =>
                (
                    await db
                        .Invoices.AsNoTracking()
                        .Where(i => i.Sort == Store.Model.InvoiceSort.Invoice)
                        .ToListAsync(),
                    await db
                        .Invoices.Where(i => i.Credits != null)
                        .Select(i => new { i.Credits, i.TotalMinor })
                        .ToListAsync()
                )
        );
        var charged = snapshots
            .Where(i => credited.Where(one => one.Credits == i.Id).Sum(one => one.TotalMinor) < i.TotalMinor)
            .SelectMany(i => JsonDocument.Parse(i.Snapshot).RootElement.GetProperty("lines").EnumerateArray())
            .Where(line => line.TryGetProperty("counted", out var counted) && counted.ValueKind == JsonValueKind.Object)
            .SelectMany(line => Ids(line, "hours").Concat(Ids(line, "costs")))
            .ToList();
        if (charged.GroupBy(one => one).FirstOrDefault(same => same.Count() > 1) is { } twice)
            Fail($"{twice.Key} is charged {twice.Count()} times");
    }

    private static IEnumerable<string> Ids(JsonElement line, string sort) =>
        line.GetProperty("counted").TryGetProperty(sort, out var ids)
            ? ids.EnumerateArray().Select(id => $"{sort} {id}")
            : [];

    private static void Same<T>(RawProject project, string what, T counted, T stored)
    {
        if (!Equals(counted, stored))
            Fail($"The {what} of project {project.Id}: counted {counted}, stored {stored}");
    }

    private void Letters(RawStudio raw)
    {
        var letters = raw.Letters.ToDictionary(l => l.Id);
        var byProject = raw.Facts.ToLookup(f => f.Project);
        var projects = raw.Projects.ToDictionary(p => p.Id);
        foreach (
            var twice in raw
                .Facts.Where(f => f.Kind == "LetterSent")
                .GroupBy(f => f.Number("letter"))
                .Where(same => same.Count() > 1)
        )
            Fail($"Letter {twice.Key} was sent {twice.Count()} times");
        foreach (
            var twice in raw
                .Letters.Where(l => l is { State: "Sent", Step: not null })
                .GroupBy(l => (l.Run, l.Step, l.Occurrence))
                .Where(same => same.Count() > 1)
        )
            Fail($"Step {twice.Key} was sent {twice.Count()} times");
        foreach (var fact in raw.Facts.Where(f => f.Kind == "LetterSent" && sent.Add(f.Id)))
        {
            var letter = letters[fact.Number("letter")];
            if (
                letter.Template is { } template
                && letter.Step is not null
                && new Recount(projects[fact.Project], byProject[fact.Project]).Untruth(
                    fact,
                    template,
                    letter.Occurrence ?? 0,
                    Day(fact.Recorded)
                )
                    is { } untrue
            )
                Fail($"“{template}” left for project {fact.Project} and {untrue}");
        }
        // what confirms an act of the client's goes at once, and what the owner sends is the owner's to send
        foreach (
            var twice in raw
                .Letters.Where(l =>
                    l is { State: "Sent", Run: not null, ByItself: true } && !Confirming.Contains(l.Template)
                )
                .GroupBy(l => (l.Run, l.ToMail, Day(l.At)))
                .Where(same => same.Count() > 1)
        )
            Fail(
                $"Two letters of one routine on one day: {string.Join(", ", twice.Select(l => $"{l.Id} {l.Template}"))}"
            );
        // what a newer reminder of an invoice has said an older one does not say again, unless the owner set its time
        foreach (
            var reminders in raw
                .Letters.Where(l =>
                    l is { State: "Sent", ByItself: true, Step: not null }
                    && Array.IndexOf(Reminders, l.Step) >= 0
                    && !raw.Facts.Any(f => f.Project == l.Project && f.Kind == "StepFixed")
                )
                .GroupBy(l => (l.Run, l.Occurrence))
        )
        {
            var order = reminders.OrderBy(l => l.At).Select(l => Array.IndexOf(Reminders, l.Step)).ToList();
            if (!order.SequenceEqual(order.Order()))
                Fail(
                    $"Reminders of one invoice left in the order {string.Join(", ", reminders.OrderBy(l => l.At).Select(l => l.Step))} in project {reminders.First().Project}"
                );
        }
        foreach (
            var held in raw.Letters.Where(l =>
                l is { State: "Held", Step: not null, Project: not null }
                && (projects[l.Project.Value].Ended is not null || projects[l.Project.Value].PutAway)
            )
        )
            Fail($"“{held.Template}” waits for an OK in project {held.Project}, which is over");
    }

    private static readonly string?[] Reminders = ["before", "late-1", "late-3", "late-7", "late-14"];
    private static readonly string?[] Confirming = ["thank-you", "receipt", "signed", "welcome"];

    /// <summary>A day of the studio, which its lives do not move.</summary>
    private static string Day(long ticks) =>
        Instant
            .FromUnixTimeTicks(ticks)
            .InZone(DateTimeZoneProviders.Tzdb["Europe/Dublin"])
            .Date.ToString("uuuu-MM-dd", null);

    private async Task PagesAsync(RawStudio raw, IReadOnlyList<long> touched, bool all)
    {
        var (today, turns) = (await PageAsync("/api/today"), await PageAsync("/api/turns"));
        var yours = raw.Projects.Count(p => !p.Rehearsal && p.Turn == "Yours");
        if (
            today.GetProperty("yourTurn").GetProperty("count").GetInt32() != yours
            || turns.GetProperty("yours").GetInt32() != yours
        )
            Fail(
                $"Your turn: {yours} projects, Today says {today.GetProperty("yourTurn").GetProperty("count")}, Turns {turns.GetProperty("yours")}"
            );
        foreach (var page in Pages.Skip(2).Concat(all ? SeldomPages : []))
            await OkAsync(page);
        foreach (var project in touched.TakeLast(4))
            await RecordAsync(raw, project, all);
        if (all)
            foreach (
                var person in await life.Studio.LookAsync(
                    (Gesamt.Store.GesamtDb db) =>
                        db.People.Where(p => p.RemovedAt == null).Select(p => p.Id.Value).Take(10).ToListAsync()
                )
            )
            {
                await OkAsync($"/api/people/{person}");
                foreach (
                    var (name, bytes) in await CopyTests.EntriesAsync(life.Owner, $"/api/people/{person}/copy.zip")
                )
                    if (System.Text.Encoding.UTF8.GetString(bytes).Contains(Life.Private, StringComparison.Ordinal))
                        Fail($"{name} of the copy of person {person} holds a private word");
            }
        foreach (var (page, client) in life.Clients.ToList())
        {
            var (status, body) = await life.SendAsync(client, "GET", $"{page}/api");
            if (body.Contains(Life.Private, StringComparison.Ordinal))
                Fail($"{page} shows a private word");
            if (!all || (int)status != 200)
                continue;
            var (_, times) = await life.SendAsync(client, "GET", $"{page}/api/times");
            if (times.Contains(Life.Private, StringComparison.Ordinal))
                Fail($"{page}/api/times shows a private word");
        }
        if (!all)
            return;
        foreach (var (id, text) in life.Letters())
            if (text.Contains(Life.Private, StringComparison.Ordinal))
                Fail($"Letter {id} of the post office holds a private word");
    }

    private async Task RecordAsync(RawStudio raw, long project, bool all)
    {
        var record = await PageAsync($"/api/projects/{project}");
        var happened = raw.Facts.Where(f => f.Project == project).ToDictionary(f => f.Id, f => f.Happened);
        var line = record
            .GetProperty("line")
            .GetProperty("past")
            .EnumerateArray()
            .Select(entry => entry.GetProperty("id").GetInt64())
            // the house may have done something by itself since the file was read
            .Where(happened.ContainsKey)
            .Select(id => happened[id])
            .ToList();
        if (!line.SequenceEqual(line.Order()))
            Fail($"The line of project {project} is out of order");
        if (record.GetRawText().Contains("An entry that cannot be told", StringComparison.Ordinal))
            Fail($"The record of project {project} cannot tell an entry");
        await OkAsync($"/api/projects/{project}/as-client");
        await OkAsync($"/api/projects/{project}/routines");
        await OkAsync($"/api/projects/{project}/spent");
        await OkAsync($"/api/projects/{project}/checklists");
        await OkAsync($"/api/projects/{project}/task-lists");
        await OkAsync($"/api/projects/{project}/letter");
        foreach (
            var opens in record
                .GetProperty("line")
                .GetProperty("past")
                .EnumerateArray()
                .Select(e => e.GetProperty("opens"))
                .Where(o => o.ValueKind == JsonValueKind.Object)
                .TakeLast(all ? 40 : 2)
        )
            await OkAsync(
                $"/api/projects/{project}/entries/{opens.GetProperty("what").GetString()}/{opens.GetProperty("id").GetInt64()}"
            );
        if (!all)
            return;
        foreach (
            var paper in record
                .GetProperty("sheet")
                .GetProperty("papers")
                .EnumerateArray()
                .Select(p => p.GetProperty("file").GetString())
                .OfType<string>()
        )
        {
            var answer = await life.Owner.AskAsync(paper);
            if ((int)answer.StatusCode >= 500)
                Fail($"{paper} answers {(int)answer.StatusCode}");
            var hash = Convert.ToHexStringLower(
                System.Security.Cryptography.SHA256.HashData(await answer.Content.ReadAsByteArrayAsync())
            );
            // a contract gains its signatures; with the ones it has, and every invoice, it is what it was
            var key =
                $"{paper} {raw.Facts.Count(f => f.Project == project && f.Kind == "ContractSigned" && paper.EndsWith($"/contracts/{f.Number("contract")}.pdf", StringComparison.Ordinal))}";
            if (papers.TryGetValue(key, out var was) && was != hash && !life.Erased.Contains(project))
                Fail($"{paper} was drawn anew with other bytes");
            papers[key] = hash;
        }
    }

    private async Task<JsonElement> PageAsync(string path)
    {
        var (status, body) = await life.SendAsync(life.Owner, "GET", path);
        if ((int)status != 200)
            Fail($"{path} answers {(int)status}: {body[..Math.Min(300, body.Length)]}");
        return JsonDocument.Parse(body).RootElement;
    }

    private async Task OkAsync(string path)
    {
        var (status, body) = await life.SendAsync(life.Owner, "GET", path);
        if ((int)status != 200)
            Fail($"{path} answers {(int)status}: {body[..Math.Min(300, body.Length)]}");
    }
}
