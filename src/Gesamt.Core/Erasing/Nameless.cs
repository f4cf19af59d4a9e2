using System.Collections.Immutable;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Erasing;

/// <summary>The facts of a project once its client is erased: what happened stays, and names nobody.</summary>
/// <remarks>Few facts hold words. Those of the studio's trade, such as the dates and phases of a kind, stay; what was called something for this project alone is numbered, so that it is still one thing throughout.</remarks>
/// <param name="terms">The words of the studio's trade.</param>
/// <param name="hashes">What the hash of a text becomes whose words are gone.</param>
public sealed class Nameless(IReadOnlySet<string> terms, IReadOnlyDictionary<string, string> hashes)
{
    private readonly Dictionary<string, string> dates = [],
        phases = [];

    /// <summary>What lists and the like are called afterwards.</summary>
    public const string Erased = "Erased";

    /// <summary>What the name of a date becomes.</summary>
    public string Date(string name) => Numbered(dates, "date", name);

    /// <summary>What the name of a phase becomes.</summary>
    public string Phase(string name) => Numbered(phases, "phase", name);

    private string Numbered(Dictionary<string, string> known, string word, string name) =>
        terms.Contains(name) ? name
        : known.TryGetValue(name, out var become) ? become
        : known[name] = $"{word} {known.Count + 1}";

    /// <summary>The fact without names.</summary>
    public Happening Of(Happening what) =>
        what switch
        {
            Happening.DateSet date => date with { Name = Date(date.Name) },
            Happening.PhaseSet set => set with { Phase = Phase(set.Phase) },
            Happening.PhasesArranged arranged => new Happening.PhasesArranged(
                [.. arranged.Before.Select(Phase)],
                [.. arranged.Phases.Select(one => new ArrangedPhase(Phase(one.Name), Maybe(one.Was)))]
            ),
            Happening.ReviewOpened opened => opened with { Phase = Maybe(opened.Phase) },
            Happening.ReviewApproved approved => approved with { Phase = Maybe(approved.Phase) },
            Happening.ApprovalWithdrawn withdrawn => withdrawn with { Phase = Maybe(withdrawn.Phase) },
            Happening.ListBegun begun => begun with { Name = Erased },
            Happening.ListChanged changed => changed with { Name = Erased },
            Happening.BoardPut put => put with { Name = Erased },
            Happening.BoardApproved approved => approved with { Name = Erased },
            Happening.AccessReturned returned => returned with { What = Erased },
            Happening.BriefPut put => put with { Hash = Hash(put.Hash) },
            Happening.BriefApproved approved => approved with { Hash = Hash(approved.Hash) },
            _ => what,
        };

    private string Hash(string hash) => hashes.GetValueOrDefault(hash, hash);

    private string? Maybe(string? phase) => phase is null ? null : Phase(phase);
}
