using System.Security.Cryptography;

namespace Gesamt.Store.Files;

/// <summary>Bytes of kept files, each once under its SHA-256, beside the database and outside any web root.</summary>
/// <remarks>Written aside, flushed, then renamed: a file that stands under its name is whole. The row that names it is committed afterwards.</remarks>
public sealed class FileVault(string folder)
{
    /// <summary>Where a file of that hash lies.</summary>
    public string PathOf(string hash) => Path.Combine(folder, hash[..2], hash);

    public bool Has(string hash) => File.Exists(PathOf(hash));

    /// <summary>Keeps a stream of at most <paramref name="limit"/> bytes.</summary>
    /// <returns>Its SHA-256 in lower-case hex, and its size.</returns>
    /// <exception cref="FileTooLargeException">It is larger; nothing is kept of it.</exception>
    public async Task<(string Hash, long Size)> KeepAsync(Stream content, long limit, CancellationToken stop)
    {
        Directory.CreateDirectory(folder);
        var aside = Path.Combine(folder, $"{Guid.NewGuid():n}.part");
        try
        {
            var (hash, size) = await WriteAsync(content, aside, limit, stop);
            var path = PathOf(hash);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            if (!File.Exists(path)) File.Move(aside, path);
            return (hash, size);
        }
        finally
        {
            File.Delete(aside);
        }
    }

    /// <summary>All bytes of a file, for those that go with letters.</summary>
    public byte[] Read(string hash) => File.ReadAllBytes(PathOf(hash));

    public Stream Open(string hash) => new FileStream(PathOf(hash), FileMode.Open, FileAccess.Read, FileShare.Read | FileShare.Delete, 64 * 1024, useAsync: true);

    private static async Task<(string, long)> WriteAsync(Stream content, string path, long limit, CancellationToken stop)
    {
        using var sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 64 * 1024, useAsync: true);
        var buffer = new byte[64 * 1024];
        long size = 0;
        for (int read; (read = await content.ReadAsync(buffer, stop)) > 0;)
        {
            size += read;
            if (size > limit) throw new FileTooLargeException(limit);
            sha.AppendData(buffer, 0, read);
            await file.WriteAsync(buffer.AsMemory(0, read), stop);
        }
        await file.FlushAsync(stop);
        file.Flush(flushToDisk: true);
        return (Convert.ToHexStringLower(sha.GetHashAndReset()), size);
    }
}

/// <summary>A file larger than is kept.</summary>
public sealed class FileTooLargeException(long limit) : IOException($"A file may have at most {limit / (1024 * 1024)} MB.");
