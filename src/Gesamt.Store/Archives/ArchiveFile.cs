using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Gesamt.Store.Archives;

/// <summary>An entry of an archive.</summary>
/// <param name="Sha256">Of its bytes, in lower-case hex (FIPS 180-4).</param>
public sealed record ArchiveEntry(string Name, long Bytes, string Sha256);

/// <summary>Something that could not be taken along, and why.</summary>
public sealed record LeftBehind(string What, string Why);

/// <summary>The list of an archive, which stands in it as archive.json.</summary>
/// <param name="Format">Always “gesamt-archive”.</param>
/// <param name="Version">Of the format; raised with every change that an older Gesamt would misread.</param>
/// <param name="Made">When it was made, in UTC (RFC 3339).</param>
/// <param name="Studio">Whose it is.</param>
public sealed record ArchiveList(
    string Format,
    int Version,
    DateTimeOffset Made,
    string Studio,
    IReadOnlyList<LeftBehind> LeftBehind,
    IReadOnlyList<ArchiveEntry> Entries
);

/// <summary>The file of an archive: a ZIP (APPNOTE 6.3) with a list of all its entries and their SHA-256. See docs/archive.md.</summary>
public static class ArchiveFile
{
    public const string Format = "gesamt-archive",
        ListName = "archive.json";
    public const int Version = 2;

    internal static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        RespectRequiredConstructorParameters = true,
        RespectNullableAnnotations = true,
        NumberHandling = JsonNumberHandling.Strict,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>Whether a file is a ZIP, by its first bytes.</summary>
    public static bool IsOne(string path)
    {
        using var file = File.OpenRead(path);
        Span<byte> first = stackalloc byte[4];
        return file.ReadAtLeast(first, first.Length, throwOnEndOfStream: false) == first.Length
            && first.SequenceEqual("PK\x03\x04"u8);
    }
}

/// <summary>Writes an archive, entry by entry.</summary>
public sealed class ArchiveWriter(Stream to, DateTimeOffset made) : IDisposable
{
    private readonly ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true);
    private readonly List<ArchiveEntry> entries = [];
    private readonly HashSet<string> hashes = [];

    /// <summary>How many entries stand in it by now.</summary>
    public int Count => entries.Count;

    /// <summary>Whether bytes of that SHA-256 stand in it already, under whatever name.</summary>
    public bool Holds(string hash) => hashes.Contains(hash);

    /// <summary>Writes an entry.</summary>
    /// <param name="name">Its path in the archive, parts parted by “/”; once only.</param>
    public async Task AddAsync(string name, Func<Stream, Task> write)
    {
        using var sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        long bytes;
        await using (var entry = Entry(name).Open())
        await using (var counted = new Counted(entry, sha))
        {
            await write(counted);
            bytes = counted.Length;
        }
        var hash = Convert.ToHexStringLower(sha.GetHashAndReset());
        hashes.Add(hash);
        entries.Add(new(name, bytes, hash));
    }

    public Task AddAsync(string name, ReadOnlyMemory<byte> bytes) =>
        AddAsync(name, async stream => await stream.WriteAsync(bytes));

    /// <summary>Writes the list of all that stands in it. Nothing comes after.</summary>
    public async Task EndAsync(string studio, IReadOnlyList<LeftBehind> left, CancellationToken stop)
    {
        await using var list = Entry(ArchiveFile.ListName).Open();
        await JsonSerializer.SerializeAsync(
            list,
            new ArchiveList(ArchiveFile.Format, ArchiveFile.Version, made, studio, left, entries),
            ArchiveFile.Json,
            stop
        );
    }

    private ZipArchiveEntry Entry(string name)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.Fastest);
        entry.LastWriteTime = made;
        return entry;
    }

    public void Dispose() => zip.Dispose();

    /// <summary>What goes through is counted and hashed.</summary>
    private sealed class Counted(Stream inner, IncrementalHash sha) : Stream
    {
        private long length;

        public override long Length => length;
        public override bool CanRead => false;
        public override bool CanSeek => false;
        public override bool CanWrite => true;
        public override long Position
        {
            get => length;
            set => throw new NotSupportedException();
        }

        public override void Write(ReadOnlySpan<byte> buffer)
        {
            sha.AppendData(buffer);
            length += buffer.Length;
            inner.Write(buffer);
        }

        public override async ValueTask WriteAsync(
            ReadOnlyMemory<byte> buffer,
            CancellationToken cancellationToken = default
        )
        {
            sha.AppendData(buffer.Span);
            length += buffer.Length;
            await inner.WriteAsync(buffer, cancellationToken);
        }

        public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

        public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
            WriteAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

        public override void Flush() => inner.Flush();

        public override Task FlushAsync(CancellationToken cancellationToken) => inner.FlushAsync(cancellationToken);

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();
    }
}

/// <summary>Reads an archive that was looked over first.</summary>
public sealed class ArchiveReader : IDisposable
{
    private readonly ZipArchive zip;

    private ArchiveReader(ZipArchive zip, ArchiveList list) => (this.zip, List) = (zip, list);

    public ArchiveList List { get; }

    public void Dispose() => zip.Dispose();

    /// <summary>Opens an archive and compares every entry with the list, before anything of it is used.</summary>
    /// <exception cref="InvalidDataException">It is no archive, is damaged, half, or newer; says what is wrong.</exception>
    public static async Task<ArchiveReader> OpenAsync(string path, CancellationToken stop = default)
    {
        ZipArchive? zip = null;
        try
        {
            zip = Zip(path);
            var reader = new ArchiveReader(zip, await ListAsync(path, zip, stop));
            await reader.CheckAsync(path, stop);
            zip = null;
            return reader;
        }
        finally
        {
            zip?.Dispose();
        }
    }

    public bool Has(string name) => zip.GetEntry(name) is not null;

    public Stream Open(string name) =>
        (zip.GetEntry(name) ?? throw new InvalidDataException($"The archive holds no {name}.")).Open();

    private static ZipArchive Zip(string path)
    {
        try
        {
            return ZipFile.OpenRead(path);
        }
        catch (InvalidDataException e)
        {
            throw new InvalidDataException($"{path} is no archive, or only a part of one: its end is missing.", e);
        }
    }

    private static async Task<ArchiveList> ListAsync(string path, ZipArchive zip, CancellationToken stop)
    {
        if (zip.GetEntry(ArchiveFile.ListName) is not { } entry)
            throw new InvalidDataException($"{path} is no archive of a studio: it holds no {ArchiveFile.ListName}.");
        try
        {
            using var document = await JsonDocument.ParseAsync(entry.Open(), default, stop);
            var root = document.RootElement;
            if (
                root.ValueKind != JsonValueKind.Object
                || !root.TryGetProperty("format", out var format)
                || format.ValueKind != JsonValueKind.String
                || format.GetString() != ArchiveFile.Format
                || !root.TryGetProperty("version", out var number)
                || !number.TryGetInt32(out var version)
            )
                throw new InvalidDataException($"{path} is no archive of a studio: its list is another kind of file.");
            // looked at before the rest, which a newer one may write otherwise
            if (version > ArchiveFile.Version)
                throw new InvalidDataException(
                    $"{path} was made by a newer Gesamt: its format is {version}, and this one reads up to {ArchiveFile.Version}. Take it in with that one."
                );
            return root.Deserialize<ArchiveList>(ArchiveFile.Json)!;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            throw new InvalidDataException($"{path} is damaged: its list {ArchiveFile.ListName} cannot be read.", e);
        }
    }

    private async Task CheckAsync(string path, CancellationToken stop)
    {
        var listed = new HashSet<string>(StringComparer.Ordinal);
        foreach (var one in List.Entries)
            if (!listed.Add(one.Name))
                throw new InvalidDataException($"{path} is damaged: {one.Name} stands in its list twice.");
        var there = new HashSet<string>(StringComparer.Ordinal);
        foreach (var entry in zip.Entries.Where(entry => entry.FullName != ArchiveFile.ListName))
            if (!there.Add(entry.FullName) || !listed.Contains(entry.FullName))
                throw new InvalidDataException($"{path} is damaged: {entry.FullName} does not stand in its list.");
        foreach (var one in List.Entries)
        {
            if (!there.Contains(one.Name))
                throw new InvalidDataException($"{path} is damaged: {one.Name} is missing.");
            if (!await IsWholeAsync(zip.GetEntry(one.Name)!, one, stop))
                throw new InvalidDataException($"{path} is damaged: {one.Name} is not what was kept.");
        }
    }

    private static async Task<bool> IsWholeAsync(ZipArchiveEntry entry, ArchiveEntry listed, CancellationToken stop)
    {
        if (entry.Length != listed.Bytes)
            return false;
        try
        {
            await using var content = entry.Open();
            return Convert.ToHexStringLower(await SHA256.HashDataAsync(content, stop)) == listed.Sha256;
        }
        catch (Exception e) when (e is InvalidDataException or EndOfStreamException)
        {
            return false;
        }
    }
}
