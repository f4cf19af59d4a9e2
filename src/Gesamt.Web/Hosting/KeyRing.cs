using System.Globalization;
using System.Security.Cryptography;
using System.Xml;
using System.Xml.Linq;
using Gesamt.Store;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Hosting;

/// <summary>The keys beside the database: the one of client links, and those that protect sessions and passwords. What is wrong with them is noticed at the start and said; none of it stops a page.</summary>
public sealed class KeyRing(Settings settings)
{
    public const string NoLinks =
        "The key of client links is damaged: no link can be made or opened until keys/links.key is restored from a backup.";

    private const int KeyBytes = 32;
    private readonly List<string> troubles = [];

    /// <summary>The key of client links; null while it is damaged, when no link opens.</summary>
    public byte[]? LinksKey { get; private set; }

    /// <summary>What is wrong, in sentences that say what to restore.</summary>
    public IReadOnlyList<string> Troubles => troubles;

    private string LinksPath => Path.Combine(settings.Keys, "links.key");

    /// <summary>Puts damaged protection keys aside, before anything is protected: a new one is made for them, and everybody signs in anew.</summary>
    public void CheckProtection()
    {
        Directory.CreateDirectory(settings.Keys);
        foreach (var path in Directory.GetFiles(settings.Keys, "*.xml").Where(path => !IsReadable(path)))
        {
            File.Move(path, $"{path}.damaged", overwrite: true);
            troubles.Add(
                $"A key was damaged and lies aside as keys/{Path.GetFileName(path)}.damaged. Sign in again and type the passwords of mail servers again, or restore it from a backup."
            );
        }
    }

    /// <summary>Reads the key of client links, makes it where there never was one, and compares it with the one the links in sent letters were made with.</summary>
    public async Task OpenLinksAsync(GesamtDb db)
    {
        // looked at without a row to change: what is changed is made ready at the first change, which no start need wait for
        var known = await db.Upkeep.AsNoTracking().Select(u => u.LinksKey).SingleOrDefaultAsync();
        if (!File.Exists(LinksPath) && known is null && !await db.Links.AnyAsync())
            await File.WriteAllBytesAsync(LinksPath, RandomNumberGenerator.GetBytes(KeyBytes));
        var found = File.Exists(LinksPath) ? await File.ReadAllBytesAsync(LinksPath) : [];
        LinksKey = found.Length == KeyBytes ? found : null;
        if (LinksKey is null)
            troubles.Add(NoLinks);
        else if (known is null)
            await RememberAsync(db, Fingerprint(found));
        else if (known != Fingerprint(found))
            troubles.Add(
                "keys/links.key is another key than the one the links in sent letters were made with: they do not open. Restore it from a backup, or send your clients new letters."
            );
    }

    private static async Task RememberAsync(GesamtDb db, string links)
    {
        var upkeep = await db.Upkeep.SingleOrDefaultAsync();
        if (upkeep is null)
            db.Upkeep.Add(upkeep = new());
        upkeep.LinksKey = links;
        await db.SaveChangesAsync();
    }

    private static string Fingerprint(byte[] key) =>
        Convert.ToHexStringLower(HMACSHA256.HashData(key, "gesamt links"u8));

    private static bool IsReadable(string path)
    {
        try
        {
            return XDocument.Load(path).Root is { } root
                && (
                    root.Name.LocalName == "revocation"
                    || root.Name.LocalName == "key"
                        && Guid.TryParse((string?)root.Attribute("id"), out _)
                        && DateTimeOffset.TryParse(
                            (string?)root.Element("expirationDate"),
                            CultureInfo.InvariantCulture,
                            out _
                        )
                        && root.Descendants()
                            .Where(element => element.Name.LocalName == "value")
                            .Select(element => Convert.FromBase64String(element.Value))
                            .Any(secret => secret.Length >= KeyBytes)
                );
        }
        catch (Exception e) when (e is XmlException or IOException or FormatException)
        {
            return false;
        }
    }
}
