using System.Collections.Immutable;

namespace Gesamt.Core.Letters;

/// <summary>What an incoming letter says of where it belongs.</summary>
/// <param name="References">Message-IDs of References and In-Reply-To (RFC 5322, 3.6.4).</param>
/// <param name="Recipients">Addresses it was sent to.</param>
public sealed record IncomingMarks(ImmutableArray<string> References, ImmutableArray<string> Recipients, string Sender);

/// <summary>What the studio knows to file by.</summary>
public interface IFilingIndex
{
    /// <summary>The project a message of that Message-ID belongs to.</summary>
    ProjectId? ByMessageId(string messageId);

    /// <summary>The project whose own reply address this is.</summary>
    ProjectId? ByReplyAddress(string address);

    /// <summary>All open projects to which an address belongs.</summary>
    IReadOnlyList<ProjectId> OpenProjectsOf(string address);
}

/// <summary>Where a letter is filed: at a project, or nowhere with candidates.</summary>
public sealed record Filed(ProjectId? Project, ImmutableArray<ProjectId> Candidates);

/// <summary>Files a letter by what it answers, else by the address it was sent to, else by a sender who belongs to exactly one open project.</summary>
public static class Filing
{
    public static Filed Of(IncomingMarks letter, IFilingIndex index)
    {
        var known = letter
            .References.Select(index.ByMessageId)
            .Concat(letter.Recipients.Select(index.ByReplyAddress))
            .FirstOrDefault(id => id is not null);
        if (known is not null)
            return new(known, []);
        var candidates = index.OpenProjectsOf(letter.Sender);
        return candidates is [var only] ? new(only, []) : new(null, [.. candidates]);
    }
}
