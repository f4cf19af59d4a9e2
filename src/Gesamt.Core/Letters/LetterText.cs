using System.Collections.Immutable;
using System.Text;

namespace Gesamt.Core.Letters;

/// <summary>A piece of a letter's template: plain text, or a blank that the record fills.</summary>
public abstract record TextPart
{
    private TextPart() { }

    public sealed record Plain(string Text) : TextPart;

    /// <summary>A named blank, with the text that stands by when the record knows nothing.</summary>
    public sealed record Blank(string Name, string? StandBy) : TextPart;
}

/// <summary>A piece of a filled letter.</summary>
/// <param name="Blank">The blank it fills; null for plain text.</param>
/// <param name="Value">What stands there; null where nothing is known.</param>
/// <param name="StandsBy">It is the text that stands by.</param>
public sealed record LetterPiece(string? Blank, string? Value, bool StandsBy);

/// <summary>A letter after filling: its text, and the blanks that had neither a value nor a stand-by.</summary>
public sealed record FilledText(string Text, ImmutableArray<string> Gaps)
{
    public bool HasGaps => !Gaps.IsEmpty;
}

/// <summary>A template that names a blank there is none of, or leaves one open.</summary>
public sealed class LetterTextException(string message) : FormatException(message);

/// <summary>Text with named blanks, written as they are read: “Hello [first name, or: there],”.</summary>
/// <remarks>“[[” stands for a single square bracket. A blank with neither a value nor a stand-by blocks sending and is named.</remarks>
public sealed record LetterText(ImmutableArray<TextPart> Parts)
{
    private const string StandByMark = ", or:";

    /// <summary>The names of its blanks.</summary>
    public IEnumerable<string> Asked => Parts.OfType<TextPart.Blank>().Select(blank => blank.Name);

    /// <exception cref="LetterTextException">A bracket is left open, or a blank's name is not one of <see cref="Blanks.Names"/>.</exception>
    public static LetterText Parse(string text)
    {
        var parts = ImmutableArray.CreateBuilder<TextPart>();
        var plain = new StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] != '[')
            {
                plain.Append(text[i]);
                continue;
            }
            if (i + 1 < text.Length && text[i + 1] == '[')
            {
                plain.Append('[');
                i++;
                continue;
            }
            var end = text.IndexOf(']', i);
            if (end < 0)
                throw new LetterTextException(
                    $"The blank that begins with “{text[i..Math.Min(text.Length, i + 20)]}” is never closed with “]”."
                );
            if (plain.Length > 0)
                parts.Add(new TextPart.Plain(plain.ToString()));
            plain.Clear();
            parts.Add(BlankOf(text[(i + 1)..end]));
            i = end;
        }
        if (plain.Length > 0)
            parts.Add(new TextPart.Plain(plain.ToString()));
        return new(parts.ToImmutable());
    }

    /// <summary>A text that was filled already, in which only blanks that are still open are filled: any other bracket is what somebody wrote.</summary>
    public static LetterText ParseFilled(string text)
    {
        var parts = ImmutableArray.CreateBuilder<TextPart>();
        var plain = new StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            if (
                text[i] == '['
                && text.IndexOf(']', i) is > 0 and var end
                && Blanks.Names.Contains(text[(i + 1)..end].Trim().ToLowerInvariant())
            )
            {
                if (plain.Length > 0)
                    parts.Add(new TextPart.Plain(plain.ToString()));
                plain.Clear();
                parts.Add(BlankOf(text[(i + 1)..end]));
                i = end;
            }
            else
                plain.Append(text[i]);
        }
        if (plain.Length > 0)
            parts.Add(new TextPart.Plain(plain.ToString()));
        return new(parts.ToImmutable());
    }

    /// <summary>The text with its blanks filled; a gap keeps its name in brackets, so that it is seen.</summary>
    public FilledText Fill(IReadOnlyDictionary<string, string?> values)
    {
        var text = new StringBuilder();
        var gaps = ImmutableArray.CreateBuilder<string>();
        foreach (var part in Parts)
        {
            if (part is TextPart.Plain plain)
                text.Append(plain.Text);
            else if (part is TextPart.Blank blank && ValueOf(blank, values) is { } value)
                text.Append(value);
            else if (part is TextPart.Blank gap)
            {
                text.Append('[').Append(gap.Name).Append(']');
                if (!gaps.Contains(gap.Name))
                    gaps.Add(gap.Name);
            }
        }
        return new(text.ToString(), gaps.ToImmutable());
    }

    /// <summary>The text in pieces, so that it can be seen what fills each blank.</summary>
    public ImmutableArray<LetterPiece> Pieces(IReadOnlyDictionary<string, string?> values) =>
        [
            .. Parts.Select(part =>
                part switch
                {
                    TextPart.Plain plain => new LetterPiece(null, plain.Text, false),
                    TextPart.Blank blank => new LetterPiece(
                        blank.Name,
                        ValueOf(blank, values),
                        values.GetValueOrDefault(blank.Name) is not { } known || string.IsNullOrWhiteSpace(known)
                    ),
                    _ => throw new ArgumentOutOfRangeException(nameof(values), part, "No such part."),
                }
            ),
        ];

    private static string? ValueOf(TextPart.Blank blank, IReadOnlyDictionary<string, string?> values) =>
        values.TryGetValue(blank.Name, out var value) && !string.IsNullOrWhiteSpace(value) ? value : blank.StandBy;

    private static TextPart.Blank BlankOf(string inside)
    {
        var mark = inside.IndexOf(StandByMark, StringComparison.OrdinalIgnoreCase);
        var name = (mark < 0 ? inside : inside[..mark]).Trim().ToLowerInvariant();
        if (!Blanks.Names.Contains(name))
            throw new LetterTextException($"There is no blank “{name}”. Known are: {string.Join(", ", Blanks.Names)}.");
        var standBy = mark < 0 ? null : inside[(mark + StandByMark.Length)..].Trim();
        return new(name, string.IsNullOrEmpty(standBy) ? null : standBy);
    }
}
