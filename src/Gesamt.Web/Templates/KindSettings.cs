using Gesamt.Core;
using Gesamt.Core.Briefs;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <param name="Demanded">Must be known before the Lead gate closes.</param>
public sealed record DetailRuleDto(
    string Name,
    FieldSort Sort,
    string? Unit,
    string[]? Options,
    bool Private,
    bool Demanded
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

/// <summary>What a kind wants to know, how its brief is arranged, and when its follow-ups begin.</summary>
public sealed record KindSettingsDto(
    int Edition,
    DetailRuleDto[] Details,
    BriefPartDto[] Brief,
    FollowUps FollowUps,
    int ReplyWithin
);

/// <summary>Changes what new projects of a kind begin with; those begun keep what was pinned on them.</summary>
public static class KindSettings
{
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
    public static KindSettingsDto Of(int edition, KindRules rules) =>
        new(
            edition,
            [
                .. rules.AllDetails.Select(d => new DetailRuleDto(
                    d.Name,
                    d.Sort,
                    d.Unit,
                    d.Options?.ToArray(),
                    d.Private,
                    rules.Demands.Contains(d.Name)
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
            rules.FollowUps,
            rules.ReplyWithin
        );

    /// <exception cref="InvalidException">A detail or part is not as it must be; it is named by its place in the list.</exception>
    public static async Task SaveAsync(Desk desk, KindId id, KindSettingsDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = await desk.Db.Kinds.SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
            var rules = StoreJson.Read<KindRules>(row.Rules);
            if (row.Edition != save.Edition)
                throw new StaleException(Of(row.Edition, rules));
            List<(string, string)> errors = [];
            for (var i = 0; i < save.Details.Length; i++)
            {
                var detail = save.Details[i];
                if (detail.Name.Trim().Length is 0 or > 60)
                    errors.Add(($"details[{i}].name", "A name of 1 to 60 characters is needed."));
                if (
                    Forms.Fills.Contains(detail.Name.Trim())
                    || save.Details.Take(i).Any(other => other.Name.Trim() == detail.Name.Trim())
                )
                    errors.Add(($"details[{i}].name", "This name is taken."));
                if (!Sorts.Contains(detail.Sort))
                    errors.Add(($"details[{i}].sort", $"One of: {string.Join(", ", Sorts)}."));
                if (detail.Sort == FieldSort.OneOf && detail.Options is not { Length: >= 2 })
                    errors.Add(($"details[{i}].options", "Give at least two choices."));
            }
            for (var i = 0; i < save.Brief.Length; i++)
            {
                if (save.Brief[i].Name.Trim().Length is 0 or > 80)
                    errors.Add(($"brief[{i}].name", "A name of 1 to 80 characters is needed."));
                if (
                    save.Brief[i].Key.Length is 0 or > 40
                    || save.Brief.Take(i).Any(other => other.Key == save.Brief[i].Key)
                )
                    errors.Add(($"brief[{i}].key", "Each part has a key of its own."));
            }
            if (save.ReplyWithin is < 1 or > 30)
                errors.Add(("replyWithin", "From 1 to 30 business days."));
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            row.Rules = StoreJson.Write(
                rules with
                {
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
                    FollowUps = save.FollowUps,
                    ReplyWithin = save.ReplyWithin,
                }
            );
            row.Edition++;
        });
    }
}
