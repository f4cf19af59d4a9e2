using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Briefs;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <param name="Demanded">Must be known before the Lead gate closes.</param>
/// <param name="Was">The sort it is kept with; only told.</param>
public sealed record DetailRuleDto(
    string Name,
    FieldSort Sort,
    string? Unit,
    string[]? Options,
    bool Private,
    bool Demanded,
    FieldSort? Was = null
);

/// <summary>A part of a kind’s brief.</summary>
public sealed record BriefPartDto(
    string Key,
    string Name,
    BriefGroup Group,
    BriefUse Use,
    bool Private,
    string? From,
    bool AfterBooking
);

/// <summary>A phase with its usual length in days.</summary>
public sealed record PhaseRuleDto(string Name, int? Days);

/// <summary>A gate of a kind.</summary>
/// <param name="Name">What the kind calls it; empty for the usual word.</param>
/// <param name="Has">Whether the kind has it.</param>
public sealed record GateRuleDto(Gate Gate, string Name, bool Has);

/// <summary>A kind's own step inside a gate.</summary>
public sealed record MilestoneRuleDto(string Name, Gate Gate, MilestoneSign By);

/// <summary>The way of a kind's projects: gates, own steps, what makes one booked, and from when on something waits long.</summary>
/// <param name="BookingDays">Days from the signature until the booking payment is due.</param>
/// <param name="Waiting">From how many days on something counts as waiting.</param>
/// <param name="Old">From how many days on it counts as old.</param>
public sealed record KindPathDto(
    GateRuleDto[] Gates,
    MilestoneRuleDto[] Milestones,
    WinRule Win,
    int BookingDays,
    int Waiting,
    int Old
);

/// <summary>The work of a kind.</summary>
/// <param name="Rounds">Rounds of review that are included in the price.</param>
/// <param name="ClosingSteps">What is done after the handover before the project is finished.</param>
/// <param name="FinalsWait">Whether final files wait for the last payment.</param>
/// <param name="TellsHours">Whether a letter of progress says how long was worked.</param>
/// <param name="GuestsEarlier">How many minutes before the true start guests are told to come.</param>
/// <param name="CancelTerms">What is kept of the price when a project is cancelled.</param>
/// <param name="FirstWeekHours">Hours that its first week takes; null for as many as usual.</param>
public sealed record KindWorkDto(
    PhaseRuleDto[] Phases,
    int Rounds,
    string[] ClosingSteps,
    bool FinalsWait = false,
    CancelStepDto[]? CancelTerms = null,
    bool TellsHours = false,
    int GuestsEarlier = 0,
    int? FirstWeekHours = null
);

/// <summary>What is kept when it is cancelled so many days before its date, or later.</summary>
/// <param name="Keeps">Per cent of the agreed price.</param>
public sealed record CancelStepDto(int DaysBefore, string Keeps);

/// <summary>A question that clients ask again and again, with its answer.</summary>
public sealed record CommonQuestionDto(string Question, string Answer);

/// <summary>What clients read to begin with.</summary>
/// <param name="Film">The address of a film; empty for none.</param>
/// <param name="FilmFile">SHA-256 of a film that is kept here; null for none.</param>
/// <param name="ReadFirst">Whether they only read their page until the start call.</param>
public sealed record IntroductionDto(
    string Text,
    string Film,
    CommonQuestionDto[] Questions,
    string? FilmFile = null,
    bool ReadFirst = false
)
{
    internal static IntroductionDto Of(Introduction said) =>
        new(
            said.Text,
            said.Film,
            [.. said.Questions.Select(one => new CommonQuestionDto(one.Question, one.Answer))],
            said.FilmFile,
            said.ReadFirst
        );

    internal Introduction ToCore() =>
        new(
            Text.Trim(),
            Film.Trim().Length > 0 ? WebAddress.Meant(Film) : "",
            [.. Questions.Select(one => new CommonQuestion(one.Question.Trim(), one.Answer.Trim()))],
            FilmFile,
            ReadFirst
        );
}

/// <summary>How its inquiries are received.</summary>
/// <param name="ReplyWithin">Business days within which an answer is promised.</param>
public sealed record KindInquiryDto(FollowUps FollowUps, int ReplyWithin);

/// <summary>Everything of a kind that is no form, letter, price or routine.</summary>
/// <param name="MainDate">What the date that matters is called; empty for work without one.</param>
/// <param name="Introduction">What its clients read to begin with; as it is where left out.</param>
public sealed record KindSettingsDto(
    int Edition,
    string Name,
    string MainDate,
    KindPathDto Path,
    KindWorkDto Work,
    KindInquiryDto Inquiry,
    DetailRuleDto[] Details,
    BriefPartDto[] Brief,
    IntroductionDto? Introduction = null
);

/// <summary>Changes what new projects of a kind begin with; those begun keep what was pinned on them.</summary>
public static class KindSettings
{
    private const int MostOfAList = 30,
        MostDays = 1000;

    private static readonly FieldSort[] Sorts =
    [
        FieldSort.ShortText,
        FieldSort.LongText,
        FieldSort.OneOf,
        FieldSort.Number,
        FieldSort.Date,
        FieldSort.Amount,
    ];

    /// <summary>A kind’s rules as its page edits them.</summary>
    public static KindSettingsDto Of(KindRow kind, KindRules rules) =>
        new(
            kind.Edition,
            kind.Name,
            rules.MainDate,
            new(
                [
                    .. Enum.GetValues<Gate>()
                        .Select(gate => new GateRuleDto(
                            gate,
                            rules.GateWords.FirstOrDefault(word => word.Gate == gate)?.Name ?? "",
                            rules.Gates.Contains(gate)
                        )),
                ],
                [.. rules.Milestones.Select(m => new MilestoneRuleDto(m.Name, m.Gate, m.By))],
                rules.Win,
                rules.BookingDays,
                rules.AgeLimits.Waiting,
                rules.AgeLimits.Old
            ),
            new(
                [.. rules.Phases.Select(phase => new PhaseRuleDto(phase.Name, phase.Days))],
                rules.Rounds,
                [.. rules.ClosingSteps],
                rules.FinalsWait,
                [
                    .. rules.CancelTerms.Select(step => new CancelStepDto(
                        step.DaysBefore,
                        NumberText.Number(step.Keeps.InPercent)
                    )),
                ],
                rules.TellsHours,
                rules.GuestsEarlier,
                rules.FirstWeekHours
            ),
            new(rules.FollowUps, rules.ReplyWithin),
            [
                .. rules.AllDetails.Select(d => new DetailRuleDto(
                    d.Name,
                    d.Sort,
                    d.Unit,
                    d.Options?.ToArray(),
                    d.Private,
                    rules.Demands.Contains(d.Name),
                    d.Sort
                )),
            ],
            [
                .. rules.Brief.Select(b => new BriefPartDto(
                    b.Key,
                    b.Name,
                    b.Group,
                    b.Use,
                    b.Private,
                    b.From,
                    b.AfterBooking
                )),
            ],
            IntroductionDto.Of(rules.Introduction)
        );

    /// <exception cref="InvalidException">Something is not as it must be; it is named by its place in the list.</exception>
    public static async Task SaveAsync(Desk desk, KindId id, KindSettingsDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = await desk.Db.Kinds.SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
            var rules = StoreJson.Read<KindRules>(row.Rules);
            if (row.Edition != save.Edition)
                throw new StaleException(Of(row, rules));
            List<(string, string)> errors = [];
            await NamesAsync(desk, id, save, errors);
            Path(save.Path, errors);
            Work(save.Work, errors);
            Details(save.Details, errors);
            Brief(save.Brief, errors);
            await IntroduceAsync(desk, save.Introduction, errors);
            if (save.Inquiry.ReplyWithin is < 1 or > 30)
                errors.Add(("inquiry.replyWithin", "From 1 to 30 business days."));
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            row.Name = save.Name.Trim();
            row.Rules = StoreJson.Write(Changed(rules, save));
            row.Edition++;
            await OpenSteps.DoneAsync(desk, FirstStep.Work);
        });
    }

    private static KindRules Changed(KindRules rules, KindSettingsDto save) =>
        rules with
        {
            MainDate = save.MainDate.Trim(),
            Gates = [.. save.Path.Gates.Where(gate => gate.Has).Select(gate => gate.Gate).Order()],
            GateWords =
            [
                .. save
                    .Path.Gates.Where(gate => gate.Name.Trim().Length > 0)
                    .Select(gate => new GateWord(gate.Gate, gate.Name.Trim())),
            ],
            Milestones = [.. save.Path.Milestones.Select(m => new Milestone(m.Name.Trim(), m.Gate, m.By))],
            Win = save.Path.Win,
            BookingDays = save.Path.BookingDays,
            AgeLimits = new(save.Path.Waiting, save.Path.Old),
            Phases = [.. save.Work.Phases.Select(phase => new KindPhase(phase.Name.Trim(), phase.Days))],
            Rounds = save.Work.Rounds,
            FinalsWait = save.Work.FinalsWait,
            TellsHours = save.Work.TellsHours,
            GuestsEarlier = save.Work.GuestsEarlier,
            FirstWeekHours = save.Work.FirstWeekHours,
            CancelTerms =
            [
                .. (save.Work.CancelTerms ?? [])
                    .Select(step => new CancelStep(step.DaysBefore, NumberText.Percent(step.Keeps)!.Value))
                    .OrderByDescending(step => step.DaysBefore),
            ],
            ClosingSteps = [.. save.Work.ClosingSteps.Select(step => step.Trim()).Where(step => step.Length > 0)],
            Introduction = save.Introduction?.ToCore() ?? rules.Introduction,
            FollowUps = save.Inquiry.FollowUps,
            ReplyWithin = save.Inquiry.ReplyWithin,
            Demands = [.. save.Details.Where(d => d.Demanded).Select(d => d.Name.Trim())],
            Details =
            [
                .. save.Details.Select(d => new DetailRule(
                    d.Name.Trim(),
                    d.Sort,
                    d.Unit,
                    d.Options is null ? null : [.. d.Options],
                    d.Private
                )),
            ],
            Brief =
            [
                .. save.Brief.Select(b => new BriefPart(
                    b.Key,
                    b.Name.Trim(),
                    b.Group,
                    b.Use,
                    b.Private,
                    b.From,
                    b.AfterBooking
                )),
            ],
        };

    private static async Task IntroduceAsync(Desk desk, IntroductionDto? said, List<(string, string)> errors)
    {
        if (said is null)
            return;
        if (said.Text.Length > 10_000)
            errors.Add(("introduction.text", "At most 10 000 characters."));
        if (said.Film.Trim().Length > 0 && !WebAddress.Is(WebAddress.Meant(said.Film)))
            errors.Add(("introduction.film", WebAddress.Allowed));
        if (
            said.FilmFile is { } film
            && !await desk.Db.PaperFiles.AnyAsync(f => f.Hash == film && f.Type == "video/mp4")
        )
            errors.Add(("introduction.filmFile", "Choose the film once more: it was not kept."));
        if (said.Questions.Length > MostOfAList)
            errors.Add(("introduction.questions", $"At most {MostOfAList}."));
        for (var i = 0; i < said.Questions.Length; i++)
        {
            if (said.Questions[i].Question.Trim().Length is 0 or > 200)
                errors.Add(($"introduction.questions[{i}].question", "Write 1 to 200 characters."));
            if (said.Questions[i].Answer.Trim().Length is 0 or > 2_000)
                errors.Add(($"introduction.questions[{i}].answer", "Write 1 to 2 000 characters."));
        }
    }

    private static async Task NamesAsync(Desk desk, KindId id, KindSettingsDto save, List<(string, string)> errors)
    {
        var name = save.Name.Trim();
        if (name.Length is 0 or > 60)
            errors.Add(("name", "A name of 1 to 60 characters is needed."));
        else if (await desk.Db.Kinds.AnyAsync(k => k.Name == name && k.Id != id && !k.Removed))
            errors.Add(("name", "Another kind has this name."));
        if (save.MainDate.Trim().Length > 60)
            errors.Add(("mainDate", "At most 60 characters; nothing for work without a date."));
    }

    private static void Path(KindPathDto path, List<(string, string)> errors)
    {
        foreach (var gate in path.Gates.Where(gate => gate.Name.Trim().Length > 30))
            errors.Add(($"path.gates[{Array.IndexOf(path.Gates, gate)}].name", "At most 30 characters."));
        bool Has(Gate gate) => path.Gates.Any(one => one.Gate == gate && one.Has);
        if (!Has(Gate.Lead) || !Has(Gate.Delivery))
            errors.Add(("path.gates", "Every project begins with Lead and ends with Delivery."));
        if (path.Win is WinRule.Signature or WinRule.Both && !Has(Gate.Contract))
            errors.Add(("path.win", "Without the Contract gate nothing is signed: let the payment book it."));
        if (path.Win is WinRule.Payment or WinRule.Both && !Has(Gate.Payment))
            errors.Add(("path.win", "Without the Payment gate nothing is paid on booking: let the signature book it."));
        Names(
            path.Milestones.Select(milestone => milestone.Name),
            i => $"path.milestones[{i}].name",
            "path.milestones",
            errors
        );
        for (var i = 0; i < path.Milestones.Length; i++)
            if (!Has(path.Milestones[i].Gate))
                errors.Add(($"path.milestones[{i}].gate", "A gate that the kind has."));
        if (path.BookingDays is < 0 or > 365)
            errors.Add(("path.bookingDays", "From 0 to 365 days."));
        if (path.Waiting is < 1 or > 365)
            errors.Add(("path.waiting", "From 1 to 365 days."));
        if (path.Old <= path.Waiting || path.Old > 365)
            errors.Add(("path.old", "More days than before something waits, up to 365."));
    }

    private static void Work(KindWorkDto work, List<(string, string)> errors)
    {
        Names(work.Phases.Select(phase => phase.Name), i => $"work.phases[{i}].name", "work.phases", errors);
        for (var i = 0; i < work.Phases.Length; i++)
            if (work.Phases[i].Days is < 1 or > MostDays)
                errors.Add(($"work.phases[{i}].days", $"From 1 to {MostDays} days, or nothing."));
        var terms = work.CancelTerms ?? [];
        for (var i = 0; i < terms.Length; i++)
        {
            if (terms[i].DaysBefore is < 0 or > MostDays)
                errors.Add(($"work.cancelTerms[{i}].daysBefore", $"From 0 to {MostDays} days."));
            else if (terms.Take(i).Any(one => one.DaysBefore == terms[i].DaysBefore))
                errors.Add(($"work.cancelTerms[{i}].daysBefore", "These days stand there already."));
            if (NumberText.Percent(terms[i].Keeps) is null)
                errors.Add(
                    ($"work.cancelTerms[{i}].keeps", $"Per cent, from 0 to 100.{NumberText.Doubt(terms[i].Keeps)}")
                );
        }
        if (terms.Length > MostOfAList)
            errors.Add(("work.cancelTerms", $"At most {MostOfAList}."));
        if (work.GuestsEarlier is < 0 or > 240)
            errors.Add(("work.guestsEarlier", "Guests are told 0 to 240 minutes earlier."));
        if (work.FirstWeekHours is < 1 or > 7 * 24)
            errors.Add(("work.firstWeekHours", "A first week takes 1 to 168 hours."));
        if (work.Rounds is < 0 or > 20)
            errors.Add(("work.rounds", "From 0 to 20 rounds."));
        if (work.ClosingSteps.Length > MostOfAList || work.ClosingSteps.Any(step => step.Trim().Length > 160))
            errors.Add(("work.closingSteps", $"At most {MostOfAList} steps of up to 160 characters."));
    }

    /// <summary>Names in a list, each there once.</summary>
    private static void Names(
        IEnumerable<string> names,
        Func<int, string> field,
        string list,
        List<(string, string)> errors
    )
    {
        HashSet<string> seen = new(StringComparer.OrdinalIgnoreCase);
        var at = 0;
        foreach (var name in names)
        {
            if (name.Trim().Length is 0 or > 60)
                errors.Add((field(at), "A name of 1 to 60 characters is needed."));
            else if (!seen.Add(name.Trim()))
                errors.Add((field(at), "This name is taken."));
            at++;
        }
        if (at > MostOfAList)
            errors.Add((list, $"At most {MostOfAList}."));
    }

    private static void Details(DetailRuleDto[] details, List<(string, string)> errors)
    {
        for (var i = 0; i < details.Length; i++)
        {
            var detail = details[i];
            if (detail.Name.Trim().Length is 0 or > 60)
                errors.Add(($"details[{i}].name", "A name of 1 to 60 characters is needed."));
            if (
                Forms.Fills.Contains(detail.Name.Trim())
                || details.Take(i).Any(other => other.Name.Trim() == detail.Name.Trim())
            )
                errors.Add(($"details[{i}].name", "This name is taken."));
            if (!Sorts.Contains(detail.Sort))
                errors.Add(($"details[{i}].sort", $"One of: {string.Join(", ", Sorts)}."));
            if (detail.Sort == FieldSort.OneOf && detail.Options is not { Length: >= 2 })
                errors.Add(($"details[{i}].options", "Give at least two choices."));
        }
    }

    private static void Brief(BriefPartDto[] parts, List<(string, string)> errors)
    {
        for (var i = 0; i < parts.Length; i++)
        {
            if (parts[i].Name.Trim().Length is 0 or > 80)
                errors.Add(($"brief[{i}].name", "A name of 1 to 80 characters is needed."));
            if (parts[i].Key.Length is 0 or > 40 || parts.Take(i).Any(other => other.Key == parts[i].Key))
                errors.Add(($"brief[{i}].key", "Each part has a key of its own."));
        }
    }
}
