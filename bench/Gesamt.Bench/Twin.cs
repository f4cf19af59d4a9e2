using System.Text.Json;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.People;
using Gesamt.Web.Planning;
using Gesamt.Web.Projects;
using Gesamt.Web.Registers;
using Gesamt.Web.Reports;
using Gesamt.Web.Templates;
using Gesamt.Web.Turns;
using Microsoft.Data.Sqlite;

namespace Gesamt.Bench;

/// <summary>A bare server with the same answers, written by hand: for each view the fewest statements that give a patient person everything it shows, each value read, and the product's own answer written as JSON. It decides nothing and looks nothing up twice: what remains is what hand-written SQL would cost.</summary>
public static class Twin
{
    private const string Open = "p.Standing_Ended IS NULL AND p.Standing_Stage <> 'Finished' AND p.Rehearsal = 0",
        Cards =
            "SELECT p.Id, p.Title, c.Name, p.Standing_Stage, p.Standing_Turn, p.Standing_Waits, p.Standing_Words, p.Standing_Since, p.Standing_Until, p.Standing_BookedAt, p.Standing_LateSince, p.Standing_Held, p.Standing_HeldSince, p.Standing_AgreedMinor FROM Projects p JOIN People c ON c.Id = p.ClientId WHERE "
            + Open,
        Register =
            "SELECT p.Id, p.Title, coalesce(c.Organisation, c.Name), k.Name, p.Standing_Stage, p.Standing_Turn, p.Standing_Since, p.Standing_MainDate, p.Standing_NetMinor, p.Standing_OwedMinor, p.Standing_BeganAt, p.Standing_BookedAt, p.Standing_Ended, p.Standing_PutAway FROM Projects p JOIN People c ON c.Id = p.ClientId JOIN Kinds k ON k.Id = p.KindId WHERE p.Rehearsal = 0";

    /// <summary>Takes the statements of one view; @project is the record's, @now the moment, @day and @week its days.</summary>
    private static readonly Dictionary<string, (string[] Statements, Type Answer)> Views = new()
    {
        ["today"] = (
            [
                "SELECT p.Id, p.Title, c.Name, p.Summary, p.Standing_Stage, p.Standing_Turn, p.Standing_Waits, p.Standing_Words, p.Standing_Since, p.Standing_LateSince, p.Standing_Held, p.Standing_HeldSince, (SELECT substr(l.Body, 1, 500) FROM Letters l WHERE l.State = 'Received' AND l.ProjectId = p.Id ORDER BY l.Id DESC LIMIT 1) FROM Projects p JOIN People c ON c.Id = p.ClientId WHERE "
                    + Open,
                "SELECT Id, ProjectId, ToName, Subject, substr(Body, 1, 500), At, Gaps, Template, Problem, RunId, Step FROM Letters WHERE State = 'Held' ORDER BY At LIMIT 50",
                "SELECT s.ProjectId, s.RunId, s.Step, s.Due, r.Routine, p.Title FROM PlannedSteps s JOIN Runs r ON r.Id = s.RunId JOIN Projects p ON p.Id = s.ProjectId WHERE s.State IN ('Planned', 'Held') AND s.Due < @tomorrow",
                "SELECT t.Id, t.Title, t.Due, p.Id, p.Title FROM Tasks t JOIN Projects p ON p.Id = t.ProjectId WHERE t.DoneAt IS NULL AND t.Due <= @day AND t.Removed = 0",
                "SELECT f.Kind, f.Version, f.Payload, f.Happened, f.Recorded, p.Id, p.Title, c.Name FROM Facts f JOIN Projects p ON p.Id = f.ProjectId JOIN People c ON c.Id = p.ClientId WHERE f.By = 'Client' AND f.Recorded >= @week ORDER BY f.Recorded DESC LIMIT 60",
                "SELECT m.Id, m.Name, m.Start, m.End, m.Place, p.Id, p.Title, c.Name FROM Meetings m JOIN Projects p ON p.Id = m.ProjectId JOIN People c ON c.Id = p.ClientId WHERE m.Cancelled = 0 AND m.Start >= @morning AND m.Start < @tomorrow",
                "SELECT (SELECT count(*) FROM Projects WHERE NOT Rehearsal AND Standing_BookedAt >= @month), (SELECT sum(Standing_NetMinor) FROM Projects WHERE NOT Rehearsal AND Standing_BookedAt >= @month), (SELECT sum(AmountMinor) FROM Payments WHERE At >= @month AND GoneAt IS NULL), (SELECT sum(OwedMinor) FROM Invoices WHERE OwedMinor > 0 AND Due >= @day), (SELECT sum(OwedMinor) FROM Invoices WHERE OwedMinor > 0 AND Due < @day)",
                "SELECT (SELECT count(*) FROM Letters WHERE State = 'Received' AND ProjectId IS NULL), (SELECT count(*) FROM Slips WHERE GoneAt IS NULL AND ProjectId IS NULL)",
            ],
            typeof(TodayDto)
        ),
        ["turns"] = ([Cards], typeof(TurnsDto)),
        ["week"] = (
            [
                "SELECT t.Id, t.Title, t.WorkOn, t.Due, t.EstimateMinutes, t.DoneAt, p.Id, p.Title, p.Standing_MainDate, r.Rules FROM Tasks t JOIN Projects p ON p.Id = t.ProjectId JOIN PinnedRules r ON r.ProjectId = p.Id WHERE t.Removed = 0 AND t.PublicId IS NULL AND (t.DoneAt IS NULL AND p.Standing_OnTable OR t.WorkOn >= @monday AND t.WorkOn < @sunday)",
                "SELECT m.Id, m.Name, m.Start, m.End, p.Id, p.Title, c.Name FROM Meetings m JOIN Projects p ON p.Id = m.ProjectId JOIN People c ON c.Id = p.ClientId WHERE m.Cancelled = 0 AND m.Start >= @morning AND m.Start < @weekend",
                "SELECT Id, What, Start, End FROM Appointments WHERE Removed = 0 AND Start >= @morning AND Start < @weekend",
                "SELECT Start, End FROM Busy WHERE Start >= @morning AND Start < @weekend",
                "SELECT s.ProjectId, s.RunId, s.Step, s.Due, r.Routine, p.Title FROM PlannedSteps s JOIN Runs r ON r.Id = s.RunId JOIN Projects p ON p.Id = s.ProjectId WHERE s.State = 'Planned' AND s.Due >= @morning AND s.Due < @weekend",
                "SELECT Key, Name FROM LetterTemplates WHERE Removed = 0",
                "SELECT ProjectId, Number, Due FROM Invoices WHERE OwedMinor > 0 AND Due >= @monday AND Due < @sunday",
                "SELECT Id, Text FROM Slips WHERE GoneAt IS NULL AND ProjectId IS NULL ORDER BY Id DESC LIMIT 5",
            ],
            typeof(WeekDto)
        ),
        ["season"] = (
            [
                "SELECT p.Id, p.Title, r.Rules, p.Standing_Stage, p.Standing_Words, p.Standing_Waits, p.Standing_Until, p.Standing_BookedAt, p.Standing_MainDate, p.Standing_AgreedMinor, p.Standing_OwedMinor, p.Standing_LateSince, p.Standing_Phases, p.Standing_ToCome FROM Projects p JOIN PinnedRules r ON r.ProjectId = p.Id WHERE "
                    + Open,
                "SELECT x.ProjectId, x.At, x.AmountMinor, x.Currency FROM Payments x JOIN Projects p ON p.Id = x.ProjectId WHERE x.GoneAt IS NULL AND x.At >= @month AND "
                    + Open,
                "SELECT x.ProjectId, x.Due, x.OwedMinor, x.Currency FROM Invoices x JOIN Projects p ON p.Id = x.ProjectId WHERE x.OwedMinor > 0 AND "
                    + Open,
                "SELECT x.ProjectId, x.Bill, x.Every, x.First, x.Next FROM Recurring x JOIN Projects p ON p.Id = x.ProjectId WHERE x.Next IS NOT NULL AND "
                    + Open,
                "SELECT t.WorkOn, t.EstimateMinutes, t.DoneAt FROM Tasks t WHERE t.Removed = 0 AND t.PublicId IS NULL AND t.WorkOn >= @monday",
                "SELECT Start, End FROM Meetings WHERE Cancelled = 0 AND Start >= @morning UNION ALL SELECT Start, End FROM Appointments WHERE Removed = 0 AND Start >= @morning",
                "SELECT Id, Name, Rules FROM Kinds WHERE Removed = 0 ORDER BY Position",
            ],
            typeof(SeasonDto)
        ),
        ["reports"] = (
            [
                "SELECT p.Id, p.ClientId, p.KindId, p.FurtherKinds, p.Source, p.Campaign, p.Standing_BeganAt, p.Standing_BookedAt, p.Standing_FinishedAt, p.Standing_Ended, p.Standing_Furthest, p.Standing_Gates, p.Standing_Chases, p.Standing_NetMinor, p.Standing_Currency FROM Projects p WHERE p.Rehearsal = 0 AND p.Standing_BeganAt >= @years",
                "SELECT s.Gate, s.Since, s.Days, s.\"Left\", count(*) FROM Stays s WHERE s.BeganAt >= @years GROUP BY s.Gate, s.Since, s.Days, s.\"Left\"",
                "SELECT h.ProjectId, sum(h.Minutes) FROM Hours h JOIN Projects p ON p.Id = h.ProjectId WHERE h.Removed = 0 AND p.Rehearsal = 0 AND p.Standing_FinishedAt IS NOT NULL AND p.Standing_BeganAt >= @years GROUP BY h.ProjectId",
                "SELECT c.ProjectId, c.GrossMinor, c.Currency, c.TaxPartsPerMillion FROM Costs c JOIN Projects p ON p.Id = c.ProjectId WHERE c.Removed = 0 AND c.ChargeOn = 0 AND p.Rehearsal = 0 AND p.Standing_FinishedAt IS NOT NULL AND p.Standing_BeganAt >= @years",
                "SELECT ClientId, min(Standing_BookedAt) FROM Projects WHERE Rehearsal = 0 AND Standing_BookedAt IS NOT NULL GROUP BY ClientId HAVING min(Standing_BookedAt) >= @years",
                "SELECT DISTINCT Source FROM Projects WHERE Source IS NOT NULL",
                "SELECT DISTINCT Campaign FROM Projects WHERE Campaign IS NOT NULL",
                "SELECT Id, Name FROM Kinds ORDER BY Name",
            ],
            typeof(ReportsDto)
        ),
        ["record"] = (
            [
                "SELECT p.*, r.Rules, c.*, k.Name FROM Projects p JOIN PinnedRules r ON r.ProjectId = p.Id JOIN People c ON c.Id = p.ClientId JOIN Kinds k ON k.Id = p.KindId WHERE p.Id = @project",
                "SELECT Id, Happened, Recorded, By, Kind, Version, Payload FROM Facts WHERE ProjectId = @project ORDER BY Recorded, Id",
                "SELECT Id, State, FromName, ToName, Subject, At, GoesAt, Problem, RunId, Step FROM Letters WHERE ProjectId = @project",
                "SELECT Id, Sort, Text, At FROM Notes WHERE ProjectId = @project",
                "SELECT Id, Title, Due, Counted, DoneAt, Phase, Fixed FROM Tasks WHERE ProjectId = @project AND Removed = 0",
                "SELECT Id, Sort, Number, Hash, At FROM Versions WHERE ProjectId = @project",
                "SELECT Id, Number, IssuedOn, Due, TotalMinor, OwedMinor, Sort FROM Invoices WHERE ProjectId = @project",
                "SELECT Id, AmountMinor, Means, At, GoneAt FROM Payments WHERE ProjectId = @project",
                "SELECT Id, \"Group\", Phase, Name, \"Use\", Size, At FROM Files WHERE ProjectId = @project AND Removed = 0",
                "SELECT Id, Phase, Words, At FROM Reviews WHERE ProjectId = @project",
                "SELECT Id, Name, Start, End, Place, Cancelled, Held FROM Meetings WHERE ProjectId = @project",
                "SELECT s.RunId, s.Step, s.Occurrence, s.State, s.Due, r.Routine FROM PlannedSteps s JOIN Runs r ON r.Id = s.RunId WHERE s.ProjectId = @project",
                "SELECT Form, Items FROM Answers WHERE ProjectId = @project",
                "SELECT Name, Value FROM Details WHERE ProjectId = @project",
                "SELECT Part, Text, Edition FROM Briefs WHERE ProjectId = @project",
                "SELECT Label FROM Labels WHERE ProjectId = @project",
                "SELECT c.Id, c.Name, c.Mail, x.Part FROM ProjectPeople x JOIN People c ON c.Id = x.PersonId WHERE x.ProjectId = @project",
            ],
            typeof(RecordDto)
        ),
        ["register"] = (
            [
                Register + " AND p.Standing_BeganAt >= @year",
                "SELECT DISTINCT Source FROM Projects WHERE Source IS NOT NULL",
            ],
            typeof(RegisterDto)
        ),
        ["search"] = (
            [
                "SELECT rowid, Sort, ProjectId, Title, snippet(Search, 3, '', '', '…', 14) FROM Search WHERE Search MATCH '\"harbour\"* \"gulls\"*' ORDER BY bm25(Search, 0, 0, 8, 1) LIMIT 20",
            ],
            typeof(JsonElement)
        ),
        ["people"] = (
            [
                "SELECT c.Id, c.Name, c.Organisation, c.Sort, c.Mail, c.Phone, count(p.Id), sum(p.Standing_Ended IS NULL AND p.Standing_Stage <> 'Finished'), sum(p.Standing_NetMinor), max(p.Standing_TouchAt) FROM People c LEFT JOIN Projects p ON p.ClientId = c.Id AND p.Rehearsal = 0 WHERE c.MergedInto IS NULL AND c.RemovedAt IS NULL AND c.Id IN (SELECT Id FROM People WHERE MergedInto IS NULL AND RemovedAt IS NULL ORDER BY Name LIMIT 200) GROUP BY c.Id",
                "SELECT count(*) FROM People WHERE MergedInto IS NULL AND RemovedAt IS NULL",
            ],
            typeof(PeopleDto)
        ),
        ["papers"] = (
            [
                "SELECT a.VersionId, a.At, a.Sealed, p.Id, p.Title, c.Id, c.Name, k.Name, v.Canonical, (SELECT group_concat(s.Name, ', ') FROM Signatures s WHERE s.VersionId = a.VersionId) FROM Papers a JOIN Projects p ON p.Id = a.ProjectId JOIN People c ON c.Id = p.ClientId JOIN Kinds k ON k.Id = p.KindId JOIN Versions v ON v.Id = a.VersionId WHERE a.At >= @year AND a.At < @next AND NOT EXISTS (SELECT 1 FROM Papers q WHERE q.VersionId = a.VersionId AND q.Signatures > a.Signatures) ORDER BY a.VersionId DESC LIMIT 100",
                "SELECT Id, Name FROM Kinds ORDER BY Position",
                "SELECT At FROM Papers WHERE VersionId IS NOT NULL ORDER BY VersionId LIMIT 1",
            ],
            typeof(SignedPapersDto)
        ),
        ["routines"] = (
            [
                "SELECT Id, KindId, Key, Routine, Off, Trouble FROM Routines WHERE Removed = 0",
                "SELECT KindId, Key, State, count(*) FROM Runs WHERE State IS NOT NULL GROUP BY KindId, Key, State",
            ],
            typeof(RoutineRowDto[])
        ),
        ["slip"] = (
            [
                "SELECT p.Id, p.Title, c.Name, c.Organisation, p.Standing_MainDate FROM Projects p JOIN People c ON c.Id = p.ClientId WHERE "
                    + Open,
            ],
            typeof(JsonElement)
        ),
    };

    public static bool Has(string view) => Views.ContainsKey(view);

    /// <param name="answers">What the product answered, by view.</param>
    public static WebApplication Of(
        string database,
        int port,
        long project,
        IReadOnlyDictionary<string, byte[]> answers
    )
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        builder.Logging.ClearProviders();
        var app = builder.Build();
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web);
        Api.Json(options);
        foreach (var (view, (statements, type)) in Views)
        {
            var answer = JsonSerializer.Deserialize(answers[view], type, options);
            app.MapGet(
                $"/{view}",
                async (HttpContext http) =>
                {
                    await using var open = new SqliteConnection($"Data Source={database};Mode=ReadOnly");
                    await open.OpenAsync();
                    foreach (var statement in statements)
                        Read(open, statement, project);
                    http.Response.ContentType = "application/json";
                    await JsonSerializer.SerializeAsync(http.Response.Body, answer, type, options);
                }
            );
        }
        return app;
    }

    private static void Read(SqliteConnection open, string statement, long project)
    {
        using var command = open.CreateCommand();
        command.CommandText = statement;
        foreach (var (name, value) in Moments(project))
            if (statement.Contains(name, StringComparison.Ordinal))
                command.Parameters.AddWithValue(name, value);
        using var reader = command.ExecuteReader();
        var values = new object[reader.FieldCount];
        while (reader.Read())
            reader.GetValues(values);
    }

    // those of House.Clock, in ticks since 1970 as the columns have them
    private static IEnumerable<(string, object)> Moments(long project)
    {
        static long Ticks(int year, int month, int day) =>
            new DateTime(year, month, day, 0, 0, 0, DateTimeKind.Utc).Ticks - DateTime.UnixEpoch.Ticks;
        return
        [
            ("@project", project),
            ("@day", "2027-01-25"),
            ("@monday", "2027-01-25"),
            ("@sunday", "2027-02-01"),
            ("@weekend", Ticks(2027, 2, 1)),
            ("@morning", Ticks(2027, 1, 25)),
            ("@tomorrow", Ticks(2027, 1, 26)),
            ("@week", Ticks(2027, 1, 18)),
            ("@month", Ticks(2027, 1, 1)),
            ("@year", Ticks(2026, 1, 1)),
            ("@years", Ticks(2025, 1, 1)),
            ("@next", Ticks(2027, 1, 1)),
        ];
    }
}
