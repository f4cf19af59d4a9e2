using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Meetings;
using Gesamt.Core.People;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Studios;

/// <summary>The studio's own details, as clients see them, and the hours it is open for meetings.</summary>
/// <param name="Brand">A colour such as #0f4c46, dark enough for white text.</param>
/// <param name="Feed">The private address of its own calendar.</param>
public sealed record StudioDto(
    string Name,
    string Owner,
    string Mail,
    string Brand,
    bool HasLogo,
    string Address,
    string TaxNumber,
    string Iban,
    string Signature,
    string Zone,
    LocalTime SendFrom,
    LocalTime SendUntil,
    string[] DaysOff,
    OpenSpan[] OpenHours,
    int Edition,
    string Feed
);

/// <summary>The addresses of the studio’s settings.</summary>
public static class StudioEndpoints
{
    public static void MapStudio(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/studio",
            async (Desk desk, HttpContext http, Settings settings) =>
                Of(await desk.Db.Studio.AsNoTracking().SingleAsync(), http, settings)
        );
        api.MapPut(
            "/studio",
            async (StudioDto save, Desk desk) =>
            {
                await SaveAsync(desk, save);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
                "/studio/logo",
                async (string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                {
                    var (_, hash, _, type) = await KeptFiles.TakeAsync(vault, name, http.Request.Body, stop);
                    if (!type.StartsWith("image/", StringComparison.Ordinal))
                        throw new InvalidException(("file", "A logo is a picture: PNG, JPEG, WebP or GIF."));
                    await desk.Db.Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.Logo, hash), stop);
                    return TypedResults.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        api.MapDelete(
            "/studio/logo",
            async (Desk desk) =>
            {
                await desk.Db.Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.Logo, (string?)null));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/studio/feed",
            async (Desk desk) =>
            {
                var key = Codes.New() + Codes.New() + Codes.New();
                await desk.Db.Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.FeedKey, key));
                return TypedResults.NoContent();
            }
        );
    }

    private static StudioDto Of(StudioRow row, HttpContext http, Settings settings) =>
        new(
            row.Name,
            row.Owner,
            row.Mail,
            row.Brand,
            row.Logo is not null,
            row.Address,
            row.TaxNumber,
            row.Iban,
            row.Signature,
            row.Zone,
            row.SendFrom,
            row.SendUntil,
            [.. StoreJson.Read<List<LocalDate>>(row.DaysOff).Order().Select(LocalDatePattern.Iso.Format)],
            StoreJson.Read<OpenSpan[]>(row.OpenHours),
            row.Edition,
            row.FeedKey is null
                ? ""
                : $"{(settings.Address.Length > 0 ? settings.Address.TrimEnd('/') : $"{http.Request.Scheme}://{http.Request.Host}")}/feed/{row.FeedKey}.ics"
        );

    private static async Task SaveAsync(Desk desk, StudioDto save)
    {
        var row = await desk.Db.Studio.SingleAsync();
        if (row.Edition != save.Edition)
            throw new StaleException(new { row.Edition });
        List<(string, string)> errors = [];
        void Text(string field, string value, int least, int most)
        {
            if (value.Trim().Length < least || value.Trim().Length > most)
                errors.Add((field, $"Write {least} to {most} characters."));
        }
        Text("name", save.Name, 1, 120);
        Text("owner", save.Owner, 1, 120);
        Text("address", save.Address, 0, 300);
        Text("taxNumber", save.TaxNumber, 0, 60);
        if (save.Iban.Trim().Length > 0 && !Iban.IsValid(save.Iban))
            errors.Add(("iban", Iban.Allowed));
        Text("signature", save.Signature, 0, 500);
        if (!MailAddress.IsValid(save.Mail))
            errors.Add(("mail", MailAddress.Allowed));
        if (!IsDark(save.Brand))
            errors.Add(("brand", "A colour such as #0f4c46, dark enough that white words on it are easily read."));
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(save.Zone) is null)
            errors.Add(("zone", "A time zone by its name, such as Europe/Dublin."));
        if (save.SendUntil <= save.SendFrom)
            errors.Add(("sendUntil", "Later than the beginning of the sending hours."));
        var daysOff = save
            .DaysOff.Where(day => !string.IsNullOrWhiteSpace(day))
            .Select(day => Dates.Read(day.Trim()))
            .ToList();
        if (daysOff.Exists(day => day is null))
            errors.Add(("daysOff", "One date a line, such as 2027-12-24, from 1900 to 2199."));
        for (var i = 0; i < save.OpenHours.Length; i++)
            if (
                save.OpenHours[i] is var span
                && (span.Day == IsoDayOfWeek.None || span.Until != LocalTime.Midnight && span.Until <= span.From)
            )
                errors.Add(($"openHours[{i}]", "Ends later than it begins."));
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        (row.Name, row.Owner, row.Mail, row.Brand, row.Address) = (
            save.Name.Trim(),
            save.Owner.Trim(),
            save.Mail.Trim(),
            save.Brand,
            save.Address.Trim()
        );
        (row.TaxNumber, row.Iban, row.Signature, row.Zone) = (
            save.TaxNumber.Trim(),
            Iban.Written(save.Iban),
            save.Signature.Trim(),
            save.Zone
        );
        (row.SendFrom, row.SendUntil) = (save.SendFrom, save.SendUntil);
        (row.DaysOff, row.OpenHours) = (
            StoreJson.Write(daysOff.Select(day => day!.Value).Distinct().Order()),
            StoreJson.Write(save.OpenHours)
        );
        row.Edition++;
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>At least 4.5 to 1 against white (WCAG 2.2, relative luminance).</summary>
    private static bool IsDark(string colour)
    {
        if (
            colour.Length != 7
            || colour[0] != '#'
            || !int.TryParse(
                colour.AsSpan(1),
                NumberStyles.AllowHexSpecifier,
                CultureInfo.InvariantCulture,
                out var rgb
            )
        )
            return false;
        double Linear(int part) =>
            part / 255.0 is var c && c <= 0.04045 ? c / 12.92 : Math.Pow((part / 255.0 + 0.055) / 1.055, 2.4);
        var luminance = 0.2126 * Linear(rgb >> 16) + 0.7152 * Linear((rgb >> 8) & 255) + 0.0722 * Linear(rgb & 255);
        return 1.05 / (luminance + 0.05) >= 4.5;
    }
}
