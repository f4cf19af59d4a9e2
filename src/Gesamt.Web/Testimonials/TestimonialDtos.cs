using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Web.Testimonials;

/// <summary>Words that pleased, to be kept.</summary>
/// <param name="Words">The quotation.</param>
/// <param name="On">The day it was said; that of the letter or note it stands in, else today, where none is given.</param>
/// <param name="Who">Who said it; the writer of the letter, else the client, where it is left out.</param>
/// <param name="Letter">The letter it stands in.</param>
/// <param name="Note">The remark or call it was said in.</param>
public sealed record KeepPraiseDto(
    string Words,
    LocalDate? On = null,
    string? Who = null,
    long? Letter = null,
    long? Note = null
);

/// <summary>The number of what was kept.</summary>
public sealed record PraiseIdDto(long Id);

/// <param name="Said">“Fiona Byrne, Mon 25 Jan”.</param>
/// <param name="Opens">The entry it stands in, “Letter.12”; null where it was typed.</param>
public sealed record PraiseDto(long Id, string Words, LocalDate On, string Who, string Said, string? Opens);

/// <summary>A consent.</summary>
/// <param name="Said">“given Mon 25 Jan”; empty while it was never asked for.</param>
/// <param name="Wording">The sentence it was given or refused for, or would be.</param>
public sealed record LeaveDto(LeaveTo To, LeaveState State, string Said, string Wording);

/// <summary>Words to be quoted.</summary>
/// <param name="Name">The name they are given with.</param>
public sealed record QuotableDto(string Words, string Name);

/// <summary>The praise of a project, and what may be made of it.</summary>
/// <param name="Waits">What asking waits for, as the end of “waits until …”; null where nothing stands in the way.</param>
/// <param name="State">Where the words stand with the client; empty while none were put to them.</param>
/// <param name="Put">The words that wait for the client’s yes.</param>
/// <param name="Approved">The words they approved last.</param>
/// <param name="Name">How they would be named.</param>
public sealed record ProjectPraiseDto(
    IReadOnlyList<PraiseDto> Kept,
    string? Waits,
    string State,
    QuotableDto? Put,
    QuotableDto? Approved,
    string Name,
    IReadOnlyList<LeaveDto> Leaves,
    bool MayQuote
);

/// <summary>The sentence of a leave, as it is kept.</summary>
internal sealed record LeaveWording(string Sentence);

/// <summary>Words put to the client with a letter. Empty words: they write them.</summary>
public sealed record PutTestimonialDto(string Words, string Name, string Subject, string Body);

/// <summary>What a client said of a leave elsewhere, told by the owner.</summary>
/// <param name="Wording">In which words it was agreed to or refused; the studio’s own sentence where none are given.</param>
public sealed record NoteLeaveDto(LeaveTo To, LeaveState State, string? Wording = null, LocalDate? On = null);

/// <summary>What a client reads of it.</summary>
/// <param name="Open">Whether the words wait for them.</param>
/// <param name="Hash">Of the words put to them, so that nobody approves what has changed meanwhile.</param>
/// <param name="Quoted">The words they approved.</param>
/// <param name="Approved">The day on which they did.</param>
/// <param name="Leaves">What they are asked for, or answered.</param>
public sealed record ShownTestimonialDto(
    bool Open,
    QuotableDto Words,
    string Hash,
    QuotableDto? Quoted,
    string? Approved,
    IReadOnlyList<LeaveDto> Leaves
);

/// <summary>Words that the client approves, those put to them or as they changed them.</summary>
/// <param name="Hash">Of the words that were put.</param>
public sealed record ApproveWordsDto(string Words, string Name, string Hash);

/// <summary>A client’s answer to a leave.</summary>
/// <param name="Wording">The sentence they read.</param>
public sealed record AnswerLeaveDto(LeaveTo To, bool Given, string Wording);

/// <summary>A leave that a client takes back.</summary>
public sealed record RevokeLeaveDto(LeaveTo To);

/// <summary>What is asked of the list of all praise.</summary>
public enum PraiseStanding
{
    All,
    MayBeQuoted,
    MayBeShown,
    Asked,
    Refused,
    Revoked,
    NotAsked,
}

/// <summary>What is asked of the list of all praise.</summary>
public sealed record PraiseQuery
{
    public PraiseStanding? Standing { get; init; }

    /// <summary>In the client’s name, the project or the words themselves.</summary>
    public string? Words { get; init; }
    public int? Most { get; init; }
}

/// <param name="Words">The words that were approved, else those put to the client, else what was kept last.</param>
/// <param name="State">What the words are: “approved Mon 25 Jan”, “kept Mon 25 Jan”.</param>
/// <param name="Quote">How the leave to quote stands.</param>
/// <param name="Show">How the leave to show stands.</param>
public sealed record PraisedProjectDto(
    long Project,
    string Title,
    long Person,
    string Client,
    string Words,
    string Name,
    string State,
    LeaveDto Quote,
    LeaveDto Show
);

/// <param name="More">How many there are besides these.</param>
public sealed record AllPraiseDto(IReadOnlyList<PraisedProjectDto> Rows, int More);
