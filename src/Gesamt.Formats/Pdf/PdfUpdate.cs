using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>An incremental update to a PDF with a classic cross-reference table, as Skia writes it: what was there stays byte for byte, new and changed objects follow (ISO 32000-1, 7.5.6).</summary>
internal sealed partial class PdfUpdate
{
    private static readonly Encoding Bytes = Encoding.Latin1;

    private readonly byte[] before;
    private readonly string text;
    private readonly Dictionary<int, int> offsets = [];
    private readonly SortedDictionary<int, byte[]> objects = [];
    private readonly long crossReference;
    private string trailer;
    private int size;

    /// <exception cref="NotSupportedException">It has a cross-reference stream, or none that is found.</exception>
    public PdfUpdate(byte[] pdf)
    {
        before = pdf;
        text = Bytes.GetString(pdf);
        var end = End().Match(text);
        if (!end.Success)
            throw new NotSupportedException("The PDF has no end that says where its cross-reference table begins.");
        crossReference = Number(end.Groups[1]);
        trailer = Table((int)crossReference);
        size = (int)Number(Entry("Size", trailer));
        Root = (int)Number(Entry("Root", trailer));
    }

    /// <summary>The number of the document's catalogue.</summary>
    public int Root { get; }

    /// <summary>The first page.</summary>
    public int FirstPage =>
        (int)Number(FirstKid().Match(Dictionary((int)Number(Entry("Pages", Dictionary(Root))))).Groups[1]);

    /// <summary>The number of a new object.</summary>
    public int New() => size++;

    public void Put(int number, string dictionary) => objects[number] = Bytes.GetBytes(dictionary);

    /// <summary>An object with a stream of bytes.</summary>
    public void Put(int number, string before, byte[] content, string after) =>
        objects[number] = [.. Bytes.GetBytes(before), .. content, .. Bytes.GetBytes(after)];

    /// <summary>An object's dictionary as it is by now.</summary>
    public string Dictionary(int number)
    {
        if (objects.TryGetValue(number, out var changed))
            return Bytes.GetString(changed);
        var begin = text.IndexOf("obj", offsets[number], StringComparison.Ordinal) + 3;
        return text[begin..text.IndexOf("endobj", begin, StringComparison.Ordinal)].Trim();
    }

    /// <summary>Adds entries to an object's dictionary.</summary>
    public void Add(int number, string entries) => Put(number, With(Dictionary(number), entries));

    /// <summary>Says what the document is, and of when.</summary>
    public void Inform(string title, Instant at)
    {
        var number = New();
        var date = at.ToDateTimeUtc().ToString("'D:'yyyyMMddHHmmss'Z'", CultureInfo.InvariantCulture);
        Put(number, $"<</Title{Text(title)}/CreationDate({date})/ModDate({date})>>");
        trailer = With(InfoOf().Replace(trailer, ""), $"/Info {number} 0 R");
    }

    /// <summary>The whole file, and where in it each new object begins.</summary>
    public (byte[] File, IReadOnlyDictionary<int, int> At) Write()
    {
        using var file = new MemoryStream();
        void Line(string line) => file.Write(Bytes.GetBytes(line + "\n"));
        file.Write(before);
        if (before[^1] != '\n')
            Line("");
        Dictionary<int, int> at = [];
        foreach (var (number, content) in objects)
        {
            at[number] = (int)file.Position;
            Line($"{number} 0 obj");
            file.Write(content);
            Line("\nendobj");
        }
        var table = file.Position;
        Line("xref");
        foreach (var run in Runs(objects.Keys))
        {
            Line($"{run[0]} {run.Count}");
            foreach (var number in run)
                // each entry has exactly 20 bytes, its end of line among them
                Line($"{at[number].ToString("D10", CultureInfo.InvariantCulture)} 00000 n ");
        }
        var next = With(
            Prev().Replace(SizeOf().Replace(trailer, $"/Size {size}"), ""),
            $"/Prev {crossReference.ToString(CultureInfo.InvariantCulture)}"
        );
        Line($"trailer\n{next.Trim()}\nstartxref\n{table}\n%%EOF");
        return (file.ToArray(), at);
    }

    /// <summary>A text of any script (UTF-16 with its mark).</summary>
    public static string Text(string words) =>
        $"<FEFF{Convert.ToHexString(Encoding.BigEndianUnicode.GetBytes(words))}>";

    /// <summary>Numbers that follow each other, together.</summary>
    private static IEnumerable<List<int>> Runs(IEnumerable<int> numbers)
    {
        List<int> run = [];
        foreach (var number in numbers)
        {
            if (run.Count > 0 && number != run[^1] + 1)
            {
                yield return run;
                run = [];
            }
            run.Add(number);
        }
        if (run.Count > 0)
            yield return run;
    }

    /// <summary>Reads a table with those before it, and gives its trailer. What a later one says of an object holds.</summary>
    private string Table(int at)
    {
        if (!text.AsSpan(at).StartsWith("xref"))
            throw new NotSupportedException("The PDF has no classic cross-reference table.");
        var trailerAt = text.IndexOf("trailer", at, StringComparison.Ordinal);
        ReadOffsets(text[(at + 4)..trailerAt]);
        var own = text[(trailerAt + 7)..text.IndexOf("startxref", trailerAt, StringComparison.Ordinal)];
        if (Entry("Prev", own) is { Success: true } earlier)
            Table((int)Number(earlier));
        return own;
    }

    private void ReadOffsets(string table)
    {
        var number = 0;
        foreach (var line in table.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var parts = line.Split(' ');
            if (parts.Length == 2)
                number = int.Parse(parts[0], CultureInfo.InvariantCulture);
            else if (parts[2] == "n")
                offsets.TryAdd(number++, int.Parse(parts[0], CultureInfo.InvariantCulture));
            else
                number++;
        }
    }

    private static string With(string dictionary, string entries) =>
        dictionary.LastIndexOf(">>", StringComparison.Ordinal) is var end
            ? $"{dictionary[..end]}{entries}{dictionary[end..]}"
            : dictionary;

    private static Group Entry(string name, string dictionary) =>
        Regex.Match(dictionary, $@"/{name}\s+(\d+)").Groups[1];

    private static long Number(Group digits) => long.Parse(digits.Value, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"startxref\s+(\d+)\s+%%EOF\s*$")]
    private static partial Regex End();

    [GeneratedRegex(@"/Kids\s*\[\s*(\d+)")]
    private static partial Regex FirstKid();

    [GeneratedRegex(@"/Prev\s+\d+")]
    private static partial Regex Prev();

    [GeneratedRegex(@"/Info\s+\d+\s+\d+\s+R")]
    private static partial Regex InfoOf();

    [GeneratedRegex(@"/Size\s+\d+")]
    private static partial Regex SizeOf();
}
