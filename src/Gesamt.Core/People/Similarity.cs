namespace Gesamt.Core.People;

/// <summary>How alike two names are, for finding what was misspelt.</summary>
public static class Similarity
{
    /// <summary>Dice's coefficient over three-letter pieces, 0 to 1, of the words without accents and case (L. R. Dice, 1945: 2 × shared / all).</summary>
    public static double Of(string a, string b)
    {
        var (first, second) = (Pieces(a), Pieces(b));
        if (first.Count == 0 || second.Count == 0)
            return 0;
        return 2.0 * first.Count(second.Contains) / (first.Count + second.Count);
    }

    /// <summary>The best likeness of a word with any word of a name, or with the whole.</summary>
    public static double OfAnyWord(string word, string name) =>
        name.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(part => Of(word, part))
            .Append(Of(word, name))
            .Max();

    /// <summary>Three-letter pieces of a text, each word with two spaces before and one behind, so that beginnings weigh more.</summary>
    public static HashSet<string> Pieces(string text)
    {
        HashSet<string> pieces = [];
        foreach (var word in (Matching.Plain(text) ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var padded = $"  {word} ";
            for (var i = 0; i + 3 <= padded.Length; i++)
                pieces.Add(padded.Substring(i, 3));
        }
        return pieces;
    }
}
