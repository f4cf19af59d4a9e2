using Gesamt.Core.Letters;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>What there is for routines to name, and what it is called: letters, forms, kinds, task lists, meetings, web hooks.</summary>
public sealed class RoutineNames : IRoutineNames, IRoutineParts
{
    private enum Sort
    {
        Letter,
        Form,
        Kind,
        TaskList,
        Meeting,
        Hook,
    }

    private sealed record Row(string Sort, string Key, string Name, string Text);

    private readonly Dictionary<(Sort, string), (string Name, string Text)> known;

    private RoutineNames(Dictionary<(Sort, string), (string Name, string Text)> known) => this.known = known;

    public string MainDate { get; private init; } = UsualDate;

    private const string UsualDate = "date that matters";

    /// <summary>All of it in one statement.</summary>
    public static async Task<RoutineNames> OfAsync(Desk desk)
    {
        return new(
            (await Known(desk.Db))
                .GroupBy(row => (Enum.Parse<Sort>(row.Sort), row.Key))
                // a letter may stand here twice, shared and in a kind's own words: each text must be sound
                .ToDictionary(
                    same => same.Key,
                    same => (same.First().Name, string.Join('\n', same.Select(row => row.Text)))
                )
        );
    }

    private static readonly Func<GesamtDb, Task<List<Row>>> Known = Prepared.Rows(
        (GesamtDb db) =>
            db.Database.SqlQuery<Row>(
                $"""
                SELECT 'Letter' AS Sort, Key, Name, Subject || char(10) || Body AS Text FROM (SELECT * FROM LetterTemplates WHERE Removed = 0 ORDER BY KindId IS NOT NULL)
                UNION ALL SELECT 'Form', Slug, Title, '' FROM Forms
                UNION ALL SELECT 'Kind', Key, Name, '' FROM Kinds WHERE Removed = 0
                UNION ALL SELECT 'TaskList', Key, Name, '' FROM TaskLists WHERE Removed = 0
                UNION ALL SELECT 'Meeting', Name, Name, '' FROM MeetingKinds WHERE Removed = 0
                UNION ALL SELECT 'Hook', Name, Name, '' FROM Hooks
                """
            )
    );

    /// <summary>The same for a kind, whose date has a name.</summary>
    public RoutineNames For(string mainDate) => new(known) { MainDate = mainDate.Length > 0 ? mainDate : UsualDate };

    public string Letter(string key) => Name(Sort.Letter, key);

    public string Form(string slug) => Name(Sort.Form, slug);

    public string Kind(string key) => Name(Sort.Kind, key);

    public string TaskList(string key) => Name(Sort.TaskList, key);

    public string? MistakeInLetter(string key)
    {
        if (!known.TryGetValue((Sort.Letter, key), out var letter))
            return $"There is no letter “{key}”.";
        try
        {
            LetterText.Parse(letter.Text);
            return null;
        }
        catch (LetterTextException e)
        {
            return $"In the letter “{letter.Name}”: {e.Message}";
        }
    }

    public bool HasForm(string slug) => known.ContainsKey((Sort.Form, slug));

    public bool HasMeetingKind(string name) => known.ContainsKey((Sort.Meeting, name));

    public bool HasTaskList(string key) => known.ContainsKey((Sort.TaskList, key));

    public bool HasKind(string key) => known.ContainsKey((Sort.Kind, key));

    public bool HasHook(string name) => known.ContainsKey((Sort.Hook, name));

    private string Name(Sort sort, string key) => known.TryGetValue((sort, key), out var one) ? one.Name : key;

    /// <summary>One routine’s row.</summary>
    public static async Task<RoutineRow> RowAsync(Desk desk, int id) =>
        await desk.Db.Routines.SingleOrDefaultAsync(r => r.Id == id && !r.Removed)
        ?? throw new MissingException("routine");

    /// <summary>“the inquiry”, “the proposal was sent”.</summary>
    public static string BeginsWords(Cause cause) =>
        cause switch
        {
            Cause.InquiryCame => "the inquiry",
            Cause.ProposalSent => "a proposal sent",
            Cause.ProposalOpened => "a proposal opened",
            Cause.ProposalRunsOut => "the last day of a proposal",
            Cause.ContractSent => "a contract sent",
            Cause.ContractSigned => "the signature",
            Cause.Booked => "booking",
            Cause.InvoiceDue => "an invoice",
            Cause.PaymentReceived => "a payment",
            Cause.MeetingHeld => "a meeting held",
            Cause.FormReturned => "a form returned",
            Cause.HandedOver => "the handover",
            Cause.Approved => "the approval",
            Cause.Ended => "an ending",
            Cause.NamedDate => "the date being known",
            _ => "",
        };
}
