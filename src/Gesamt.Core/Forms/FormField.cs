using System.Collections.Immutable;

namespace Gesamt.Core.Forms;

/// <summary>What a field of a form asks for. A heading asks for nothing.</summary>
public enum FieldSort
{
    ShortText,
    LongText,
    OneOf,
    AnyOf,
    Number,
    Date,
    Mail,
    Phone,
    Address,
    Amount,
    File,
    Consent,
    Heading,
}

/// <summary>A field is shown while another one, above it, has one of these answers.</summary>
public sealed record ShownIf(string Field, ImmutableArray<string> Is);

/// <summary>A field of a form.</summary>
/// <param name="Key">Its name in answers; stays when the label changes.</param>
/// <param name="Unit">Shown behind a number.</param>
/// <param name="Options">What can be chosen, for one of and any of.</param>
/// <param name="Fills">What of the record its answer fills: name, organisation, mail, phone, address, date, title, source, or a detail of the kind.</param>
public sealed record FormField(
    string Key,
    FieldSort Sort,
    string Label,
    bool Required = false,
    string? Hint = null,
    string? Unit = null,
    ImmutableArray<string>? Options = null,
    string? Fills = null,
    ShownIf? ShownIf = null
)
{
    public bool HasOptions => Sort is FieldSort.OneOf or FieldSort.AnyOf;

    /// <summary>In a checklist, the task that one of its answers makes; null for none.</summary>
    public AnswerTask? Makes { get; init; }
}

/// <summary>A task that an answer of a checklist makes.</summary>
/// <param name="Answer">One of the choices.</param>
/// <param name="Title">What is to be done then.</param>
public sealed record AnswerTask(string Answer, string Title);

/// <summary>An answer with its question as it was asked and in the words it was given; several choices or files stand on lines of their own.</summary>
/// <param name="Understood">What was made of a number, a size or an amount that was written in words: “24 m²” of “6 x 4”; null where it says the same.</param>
public sealed record Answer(string Key, string Question, string Text, string? Understood = null);

/// <summary>What is wrong with a field, in words that say what is allowed.</summary>
public sealed record FieldMistake(string Field, string Words);
