using System.Text;
using Gesamt.Core;
using Gesamt.Core.Briefs;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Papers;
using Gesamt.Core.Work;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Briefs;

/// <summary>One part of the brief with its text.</summary>
public sealed record BriefPartOfDto(
    string Key,
    string Name,
    BriefGroup Group,
    BriefUse Use,
    bool Private,
    bool Later,
    string Text,
    int Edition
);

/// <param name="Guides">Guiding points, in sight all along.</param>
/// <param name="Watch">Obstacles of the phases in work.</param>
/// <param name="State">Where it stands with the client, in words; empty while it was never put to them.</param>
/// <param name="IsWithClient">It waits for their word, and can be taken back.</param>
/// <param name="Changed">It was changed since it was put to them.</param>
public sealed record BriefDto(
    IReadOnlyList<BriefPartOfDto> Parts,
    IReadOnlyList<string> Guides,
    IReadOnlyList<string> Watch,
    string State,
    bool IsWithClient,
    bool Changed
);

/// <summary>A known detail of a project.</summary>
public sealed record DetailDto(
    string Name,
    FieldSort Sort,
    string? Unit,
    IReadOnlyList<string>? Options,
    bool Private,
    bool Demanded,
    string Value,
    string? Said
);

/// <summary>The text of a part, written upon what was read as this edition.</summary>
public sealed record SaveBriefDto(string Text, int Edition);

/// <summary>Details by their name; an empty value takes one away.</summary>
public sealed record SaveDetailsDto(Dictionary<string, string> Values);

/// <summary>The brief as its client reads it.</summary>
public sealed record ShownBriefDto(IReadOnlyList<ShownPartDto> Parts, string Hash, bool Open, string? Approved);

/// <summary>One part of it.</summary>
public sealed record ShownPartDto(string Group, string Name, string Text);

/// <summary>What the owner knows of a project: the details its kind asks for, and its brief.</summary>
public static class ProjectBrief
{
    /// <summary>The brief as the studio writes it.</summary>
    public static async Task<BriefDto> OfAsync(Desk desk, ProjectFile file)
    {
        var texts = (await desk.Db.OfProjectAsync<BriefRow>(file.Id)).ToDictionary(b => b.Part);
        var booked = file.Row.Standing.BookedAt is not null;
        var parts = file.Case.Kind.Brief.Select(part => (Part: part, Row: texts.GetValueOrDefault(part.Key))).ToList();
        var phases = PhaseRule.Of(file.Case).ToDictionary(phase => phase.Name, phase => phase.State);
        var state = BriefRule.Of(file.History);
        string Day(NodaTime.Instant at) => desk.Short(desk.Calendar.DateOf(at))!;
        var words = state switch
        {
            { Approved: { } yes } => $"approved by the client {Day(yes)}",
            { Remarked: { } said } => $"the client remarked {Day(said)}",
            { Put: { } put } => $"with the client since {Day(put)}",
            _ => "",
        };
        return new(
            [
                .. parts.Select(p => new BriefPartOfDto(
                    p.Part.Key,
                    p.Part.Name,
                    p.Part.Group,
                    p.Part.Use,
                    p.Part.Private,
                    p.Part.AfterBooking && !booked,
                    p.Row?.Text ?? "",
                    p.Row?.Edition ?? 0
                )),
            ],
            [.. parts.Where(p => p.Part.Use == BriefUse.Guide).SelectMany(p => FormRule.Lines(p.Row?.Text ?? ""))],
            [
                .. parts
                    .Where(p => p.Part.Use == BriefUse.Obstacle)
                    .SelectMany(p => BriefRule.ToWatch(p.Row?.Text ?? "", phases)),
            ],
            words,
            state is { Put: not null, Approved: null, Remarked: null },
            state.Hash is { } hash
                && hash != Versions.HashOf(Shown(file, texts))
                && hash != OlderHashOf(Shown(file, texts))
        );
    }

    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static async Task SaveAsync(Desk desk, ProjectId id, string key, SaveBriefDto save)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            if (file.Case.Kind.Brief.All(part => part.Key != key))
                throw new MissingException("part of the brief");
            if (save.Text.Length > 10_000)
                throw new InvalidException(("text", "At most 10 000 characters."));
            var row = await desk.Db.Briefs.SingleOrDefaultAsync(b => b.ProjectId == id && b.Part == key);
            if ((row?.Edition ?? 0) != save.Edition)
                throw new StaleException(new SaveBriefDto(row?.Text ?? "", row?.Edition ?? 0));
            if (row is null)
                desk.Db.Briefs.Add(
                    new()
                    {
                        ProjectId = id,
                        Part = key,
                        Text = save.Text.Trim(),
                        Edition = 1,
                    }
                );
            else
                (row.Text, row.Edition) = (save.Text.Trim(), row.Edition + 1);
            act.Touch(id);
        });
    }

    /// <summary>Puts the brief, without its private parts, to the client for approval, with a letter.</summary>
    public static async Task<LetterRow> PutAsync(Desk desk, ProjectId id, SaveLetterWordsDto letter)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var parts = Shown(file, await TextsAsync(desk, id));
            if (parts.Count == 0)
                throw new RefusedException("There is nothing in the brief yet that the client may see.");
            var row = await LettersOut.ClaimAsync(act, file, letter.Subject, letter.Body, null);
            var version = await Versions.AddAsync(desk, id, PaperSort.Brief, parts);
            await act.RecordAsync(file, Actor.Owner, new Happening.BriefPut(version.Hash));
            return row;
        });
    }

    /// <summary>Takes the brief back from the client, to go on writing.</summary>
    public static async Task TakeBackAsync(Desk desk, ProjectId id)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            if (BriefRule.Of(file.History).IsOpen)
                await act.RecordAsync(file, Actor.Owner, new Happening.BriefTakenBack());
        });
    }

    /// <summary>The brief as its client sees it; null while it was not put to them.</summary>
    public static async Task<ShownBriefDto?> ShownAsync(Desk desk, ProjectFile file)
    {
        var state = BriefRule.Of(file.History);
        if (state.Put is null)
            return null;
        var (parts, hash) = await PutAsync(desk, file, state.Hash!);
        return new(
            parts,
            hash,
            state.IsOpen,
            state.Approved is { } at && hash == state.Hash ? desk.Short(desk.Calendar.DateOf(at)) : null
        );
    }

    /// <exception cref="RefusedException">It was changed or taken back while it was read.</exception>
    public static async Task ApproveAsync(Desk desk, ProjectId id, string hash)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var state = BriefRule.Of(file.History);
            if (!state.IsOpen || state.Hash != hash || (await PutAsync(desk, file, hash)).Hash != hash)
                throw new RefusedException("The brief was changed while you read it. Load the page again.");
            await act.RecordAsync(file, Actor.Client, new Happening.BriefApproved(hash));
        });
    }

    /// <summary>What the client says to the brief instead of approving it.</summary>
    public static async Task RemarkAsync(Desk desk, ProjectId id, string words)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            if (!BriefRule.Of(file.History).IsOpen)
                throw new RefusedException("The brief is not open for remarks any more.");
            await act.RecordAsync(
                file,
                Actor.Client,
                new Happening.BriefRemarked(await Notes.AddAsync(desk, id, NoteSort.Words, words))
            );
        });
    }

    /// <summary>What is known of the project, in the order of its kind.</summary>
    public static async Task<IReadOnlyList<DetailDto>> DetailsAsync(Desk desk, ProjectFile file)
    {
        var known = (await desk.Db.OfProjectAsync<DetailRow>(file.Id)).ToDictionary(d => d.Name, d => d.Value);
        var said = (await desk.Db.OfProjectAsync<DetailDoubtRow>(file.Id))
            .Where(d => d.GoneAt == null)
            .OrderBy(d => d.Id)
            .ToList();
        return
        [
            .. file.Case.Kind.AllDetails.Select(d => new DetailDto(
                d.Name,
                d.Sort,
                d.Unit,
                d.Options,
                d.Private,
                file.Case.Kind.Demands.Contains(d.Name),
                Sizes.InHouse(d.AsField, known.GetValueOrDefault(d.Name, "")),
                said.LastOrDefault(one => one.Name == d.Name)?.Said is { } other
                    ? Sizes.InHouse(d.AsField, other)
                    : null
            )),
        ];
    }

    /// <summary>Keeps what the owner found out. A detail the kind demands can be corrected, not emptied.</summary>
    /// <exception cref="InvalidException">A value is not of its detail's sort; the detail is named.</exception>
    public static async Task SaveDetailsAsync(Desk desk, ProjectId id, SaveDetailsDto save)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var rules = file.Case.Kind.AllDetails.ToDictionary(d => d.Name);
            var rows = await desk.Db.Details.Where(d => d.ProjectId == id).ToDictionaryAsync(d => d.Name);
            List<(string, string)> errors = [];
            List<Happening> facts = [];
            foreach (var (name, given) in save.Values)
            {
                // what stands as it was shown was not typed, and is not read: 31.125 could be two numbers to who types it
                if (
                    rules.TryGetValue(name, out var shown)
                    && rows.TryGetValue(name, out var kept)
                    && given.Trim() == Sizes.InHouse(shown.AsField, kept.Value)
                )
                    continue;
                var value = rules.TryGetValue(name, out var of) ? Sizes.Value(of.AsField, given.Trim()) : given.Trim();
                if (!rules.TryGetValue(name, out var rule))
                    errors.Add((name, "This kind of work has no such detail."));
                else if (value.Length == 0)
                {
                    if (rows.TryGetValue(name, out var known) && file.Case.Kind.Demands.Contains(name))
                        errors.Add((name, "It is needed and known: correct it rather than leave it empty."));
                    else if (known is not null)
                        desk.Db.Details.Remove(known);
                }
                else if (FormRule.MistakeIn(rule.AsField, given.Trim()) is { } mistake)
                    errors.Add((name, mistake));
                else if (rows.TryGetValue(name, out var row))
                    row.Value = value;
                else
                {
                    desk.Db.Details.Add(
                        new()
                        {
                            ProjectId = id,
                            Name = name,
                            Value = value,
                        }
                    );
                    facts.Add(new Happening.DetailKnown(name));
                }
            }
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, [.. facts]);
        });
    }

    private static Task<Dictionary<string, BriefRow>> TextsAsync(Desk desk, ProjectId id) =>
        desk.Db.Briefs.AsNoTracking().Where(b => b.ProjectId == id).ToDictionaryAsync(b => b.Part);

    /// <summary>What a client may read of it: never a private part, nor obstacles.</summary>
    private static List<ShownPartDto> Shown(ProjectFile file, IReadOnlyDictionary<string, BriefRow> texts) =>
        [
            .. from part in file.Case.Kind.Brief
            where
                part is { Private: false, Use: not BriefUse.Obstacle }
                && texts.TryGetValue(part.Key, out var row)
                && row.Text.Length > 0
            select new ShownPartDto(part.Group.ToString(), part.Name, texts[part.Key].Text),
        ];

    /// <summary>The text that was put to the client, with its hash: the very one, whatever the owner wrote since. An older Gesamt kept the hash alone: there it is today's text, under today's hash.</summary>
    private static async Task<(IReadOnlyList<ShownPartDto> Parts, string Hash)> PutAsync(
        Desk desk,
        ProjectFile file,
        string hash
    )
    {
        var version = await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.ProjectId == file.Id && v.Sort == PaperSort.Brief && v.Hash == hash)
            .OrderByDescending(v => v.Number)
            .FirstOrDefaultAsync();
        if (version is not null)
            return (Versions.Read<List<ShownPartDto>>(version), version.Hash);
        var parts = Shown(file, await TextsAsync(desk, file.Id));
        return (parts, OlderHashOf(parts));
    }

    private static string OlderHashOf(IReadOnlyList<ShownPartDto> parts) =>
        CanonicalJson.Hash(Encoding.UTF8.GetBytes(StoreJson.Write(parts)));
}
