using Gesamt.Store.Model;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Inquiries;

/// <summary>Files of forms that are not sent yet. They live for a day, and there is room for so much of them from one address, and in all: strangers cannot fill the disk.</summary>
public sealed class Uploads(Settings settings)
{
    /// <summary>How long an upload waits for its form.</summary>
    public static readonly Duration Life = Duration.FromDays(1);

    private const long Megabyte = 1024 * 1024;

    private readonly Lock gate = new();

    // what is being handed in at this moment, which no row tells of yet
    private readonly Dictionary<string, long> underWay = [];

    /// <summary>Keeps a file handed in with a form that is not sent yet.</summary>
    /// <param name="length">Its bytes as announced; null when it was not said.</param>
    /// <param name="from">The address it comes from.</param>
    /// <exception cref="InvalidException">It is of no kind that is kept, or there is no room for it.</exception>
    public async Task<UploadRow> KeepAsync(
        Desk desk,
        FormRow form,
        string name,
        Stream content,
        long? length,
        string from,
        CancellationToken stop
    )
    {
        var wanted = Math.Min(length ?? KeptFiles.Most, KeptFiles.Most);
        var since = desk.Now - Life;
        var waiting = await desk
            .Db.Uploads.AsNoTracking()
            .Where(u => !u.Taken && u.At > since)
            .GroupBy(u => u.From == from)
            .Select(same => new { Own = same.Key, Size = same.Sum(u => u.Size) })
            .ToListAsync(stop);
        var (own, all) = (waiting.Where(w => w.Own).Sum(w => w.Size), waiting.Sum(w => w.Size));
        lock (gate)
        {
            if (own + underWay.GetValueOrDefault(from) + wanted > settings.UploadMegabytesPerAddress * Megabyte)
                throw new InvalidException(
                    (
                        "file",
                        $"Files of at most {settings.UploadMegabytesPerAddress} MB can be chosen before the form is sent. Send it with fewer, or try again tomorrow."
                    )
                );
            if (all + underWay.Values.Sum() + wanted > settings.UploadMegabytes * Megabyte)
                throw new InvalidException(
                    (
                        "file",
                        $"There is no room for files at the moment. Send the form without them, or write to {desk.Studio.Mail}."
                    )
                );
            underWay[from] = underWay.GetValueOrDefault(from) + wanted;
        }
        try
        {
            var (plain, hash, size, type) = await KeptFiles.TakeAsync(desk.Vault, name, content, stop);
            var upload = new UploadRow
            {
                PublicId = Codes.New() + Codes.New(),
                FormId = form.Id,
                Name = plain,
                Hash = hash,
                Size = size,
                Type = type,
                From = from,
                At = desk.Now,
            };
            desk.Db.Uploads.Add(upload);
            await desk.Db.SaveChangesAsync(stop);
            return upload;
        }
        finally
        {
            lock (gate)
                if ((underWay[from] -= wanted) == 0)
                    underWay.Remove(from);
        }
    }

    /// <summary>Forgets uploads whose form was not sent within a day; their bytes go with the next sweep.</summary>
    public static Task<int> PruneAsync(Desk desk)
    {
        var before = desk.Now - Life;
        return desk.Db.Uploads.Where(u => !u.Taken && u.At <= before).ExecuteDeleteAsync();
    }
}
