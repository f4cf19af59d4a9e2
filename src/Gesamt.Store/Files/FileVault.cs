using System.Security.Cryptography;

namespace Gesamt.Store.Files;

/// <summary>Bytes of kept files, each once under its SHA-256, beside the database and outside any web root.</summary>
/// <remarks>Written aside, flushed, then renamed: a file that stands under its name is whole. The row that names it is committed afterwards.</remarks>
public sealed class FileVault(string folder)
{
    /// <summary>Where a file of that hash lies.</summary>
    public string PathOf(string hash) => Path.Combine(folder, hash[..2], hash);

    public bool Has(string hash) => IsHash(hash) && File.Exists(PathOf(hash));

    /// <summary>Where the small picture of a file lies; it can be made again.</summary>
    public string SmallOf(string hash) => $"{PathOf(hash)}{Small}";

    private const string Small = ".small",
        Part = ".part";

    /// <summary>Keeps a stream of at most <paramref name="limit"/> bytes.</summary>
    /// <param name="head">Bytes that were read of it already.</param>
    /// <returns>Its SHA-256 in lower-case hex, and its size.</returns>
    /// <exception cref="FileTooLargeException">It is larger; nothing is kept of it.</exception>
    public async Task<(string Hash, long Size)> KeepAsync(
        ReadOnlyMemory<byte> head,
        Stream content,
        long limit,
        CancellationToken stop
    )
    {
        Directory.CreateDirectory(folder);
        var aside = Path.Combine(folder, $"{Guid.NewGuid():n}{Part}");
        try
        {
            var (hash, size) = await WriteAsync(head, content, aside, limit, stop);
            var path = PathOf(hash);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            // what is handed in again is young again: it is not swept before the row that names it is written
            lock (gate)
                File.Move(aside, path, overwrite: true);
            return (hash, size);
        }
        finally
        {
            File.Delete(aside);
        }
    }

    public Task<(string Hash, long Size)> KeepAsync(Stream content, long limit, CancellationToken stop) =>
        KeepAsync(default, content, limit, stop);

    private readonly Lock gate = new();

    /// <summary>The hashes of all files that are kept.</summary>
    public IEnumerable<string> Hashes() =>
        !Directory.Exists(folder)
            ? []
            : Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                .Select(path => Path.GetFileName(path)!)
                .Where(IsHash);

    /// <summary>Deletes files that no row names and that were handed in before an instant, and what is left of uploads that broke off.</summary>
    /// <param name="named">Whether a row names a hash.</param>
    /// <returns>How many files went.</returns>
    public int Sweep(Func<string, bool> named, DateTime before)
    {
        var gone = 0;
        foreach (
            var path in Directory.Exists(folder) ? Directory.GetFiles(folder, "*", SearchOption.AllDirectories) : []
        )
        {
            var name = Path.GetFileName(path);
            var hash = name.EndsWith(Small, StringComparison.Ordinal) ? name[..^Small.Length] : name;
            if (IsHash(hash) && named(hash))
                continue;
            lock (gate)
            {
                if (File.GetLastWriteTimeUtc(path) >= before)
                    continue;
                File.Delete(path);
            }
            if (name == hash)
                gone++;
        }
        return gone;
    }

    /// <summary>Deletes files, with their small pictures.</summary>
    /// <param name="hashes">Of files that no row names any more.</param>
    public void Delete(IEnumerable<string> hashes)
    {
        foreach (var hash in hashes)
            lock (gate)
            {
                File.Delete(PathOf(hash));
                File.Delete(SmallOf(hash));
            }
    }

    /// <summary>Whether a kept file is still the bytes it was kept as; one that is not there is not.</summary>
    public async Task<bool> IsWholeAsync(string hash, CancellationToken stop)
    {
        try
        {
            await using var file = Open(hash);
            return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, stop)) == hash;
        }
        catch (IOException)
        {
            return false;
        }
    }

    public long SizeOf(string hash) => new FileInfo(PathOf(hash)) is { Exists: true } file ? file.Length : 0;

    private static bool IsHash(string name) =>
        name.Length == 2 * SHA256.HashSizeInBytes && name.All(char.IsAsciiHexDigitLower);

    /// <summary>All bytes of a file, for those that go with letters.</summary>
    public byte[] Read(string hash) => File.ReadAllBytes(PathOf(hash));

    public Stream Open(string hash) =>
        new FileStream(
            PathOf(hash),
            FileMode.Open,
            FileAccess.Read,
            FileShare.Read | FileShare.Delete,
            64 * 1024,
            useAsync: true
        );

    private static async Task<(string, long)> WriteAsync(
        ReadOnlyMemory<byte> head,
        Stream content,
        string path,
        long limit,
        CancellationToken stop
    )
    {
        using var sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        await using var file = new FileStream(
            path,
            FileMode.CreateNew,
            FileAccess.Write,
            FileShare.None,
            64 * 1024,
            useAsync: true
        );
        var buffer = new byte[64 * 1024];
        long size = head.Length;
        if (size > limit)
            throw new FileTooLargeException(limit);
        sha.AppendData(head.Span);
        await file.WriteAsync(head, stop);
        for (int read; (read = await content.ReadAsync(buffer, stop)) > 0; )
        {
            size += read;
            if (size > limit)
                throw new FileTooLargeException(limit);
            sha.AppendData(buffer, 0, read);
            await file.WriteAsync(buffer.AsMemory(0, read), stop);
        }
        await file.FlushAsync(stop);
        file.Flush(flushToDisk: true);
        return (Convert.ToHexStringLower(sha.GetHashAndReset()), size);
    }
}

/// <summary>A file larger than is kept.</summary>
public sealed class FileTooLargeException(long limit)
    : IOException($"A file may have at most {limit / (1024 * 1024)} MB.");
