using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.People;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Studios;

/// <summary>Checks and keeps the studio's settings, whole or not at all.</summary>
internal static class SavedStudio
{
    private const int MostDays = 365;

    /// <exception cref="InvalidException">Something is not as it must be; every such field is named.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static async Task SaveAsync(Desk desk, Doorplate plate, SaveStudioDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = await desk.Db.Studio.SingleAsync();
            if (row.Edition != save.Edition)
                throw new StaleException(new { row.Edition });
            var errors = new List<(string, string)>();
            Names(save.Names, errors);
            if (!IsDark(save.Look.Brand))
                errors.Add(
                    ("look.brand", "A colour such as #0f4c46, dark enough that white words on it are easily read.")
                );
            Money(save.Money, errors);
            if (save.Money.Currency != row.Currency && await HasAmountsAsync(desk))
                errors.Add(
                    (
                        "money.currency",
                        $"Amounts were agreed, billed or spent in {row.Currency}: the currency stays with them."
                    )
                );
            var onBooking = Habits(save.Habits, errors);
            if (save.Habits.HoursOff == true && !row.HoursOff && await desk.Db.Clocks.AnyAsync())
                errors.Add(
                    ("habits.hoursOff", "The clock runs, or asks how long you worked: stop it or answer first.")
                );
            if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(save.Style.Zone) is null)
                errors.Add(("style.zone", "A time zone by its name, such as Europe/Dublin."));
            var daysOff = Hours(save.Hours, errors, desk);
            SavedBilling.Put(row, save.Billing, errors);
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            var opens = StoreJson.Write(save.Hours.OpenHours);
            if (row.OpenHours != opens || row.SendFrom != save.Hours.SendFrom || row.SendUntil != save.Hours.SendUntil)
                await OpenSteps.DoneAsync(desk, FirstStep.Hours);
            var (zone, off) = (row.Zone, row.DaysOff());
            var (from, until) = (row.SendFrom, row.SendUntil);
            Fill(row, save, onBooking, desk.Today.Year);
            (row.DaysOff, row.OpenHours) = (StoreJson.Write(daysOff), opens);
            row.Edition++;
            if (zone != row.Zone || (from, until) != (row.SendFrom, row.SendUntil) || !off.SetEquals(row.DaysOff()))
                await Sqlite.MarkStaleAsync(desk.Db, row.Edition);
        });
        plate.Forget();
    }

    private static void Fill(StudioRow row, SaveStudioDto save, Rate onBooking, int year)
    {
        var (names, money, habits) = (save.Names, save.Money, save.Habits);
        (row.Name, row.Owner, row.Mail) = (names.Name.Trim(), names.Owner.Trim(), names.Mail.Trim());
        (row.Phone, row.Site, row.Address) = (names.Phone.Trim(), names.Site.Trim(), names.Address.Trim());
        (row.Signature, row.ClientAddress) = (names.Signature.Trim(), names.ClientAddress.Trim().TrimEnd('/'));
        row.Brand = save.Look.Brand;
        (row.Currency, row.TaxNumber, row.Bank) = (money.Currency, money.TaxNumber.Trim(), money.Bank.Trim());
        (row.Iban, row.Bic) = (Iban.Written(money.Iban), Bic.Written(money.Bic));
        row.InvoiceSeries = money.InvoiceSeries.Trim();
        if (money.InvoiceFirst != row.InvoiceFirst || row.InvoiceFirstYear == 0)
            (row.InvoiceFirst, row.InvoiceFirstYear) = (money.InvoiceFirst, year);
        (row.OnBookingPartsPerMillion, row.DueDays, row.ValidDays) = (
            onBooking.PartsPerMillion,
            habits.DueDays,
            habits.ValidDays
        );
        (row.SignsAtOnce, row.PutAwayDays) = (habits.SignsAtOnce, habits.PutAwayDays);
        row.HoursOff = habits.HoursOff ?? row.HoursOff;
        (row.Zone, row.Numbers, row.Days, row.Clock) = (
            save.Style.Zone,
            save.Style.Numbers,
            save.Style.Days,
            save.Style.Clock
        );
        (row.SendFrom, row.SendUntil) = (save.Hours.SendFrom, save.Hours.SendUntil);
    }

    private static void Names(StudioNamesDto names, List<(string, string)> errors)
    {
        Text(errors, "names.name", names.Name, 1, 120);
        Text(errors, "names.owner", names.Owner, 1, 120);
        Text(errors, "names.phone", names.Phone, 0, 60);
        Text(errors, "names.address", names.Address, 0, 300);
        Text(errors, "names.signature", names.Signature, 0, 500);
        if (!MailAddress.IsValid(names.Mail))
            errors.Add(("names.mail", MailAddress.Allowed));
        if (names.Site.Trim().Length > 0 && WebAddress(names.Site) is null)
            errors.Add(("names.site", "An address that begins with https:// or http://, or nothing."));
        if (
            names.ClientAddress.Trim().Length > 0
            && WebAddress(names.ClientAddress) is not { PathAndQuery: "/", Fragment: "" }
        )
            errors.Add(
                (
                    "names.clientAddress",
                    "An address that begins with https:// or http:// and has nothing after the name, such as https://work.studio.example; or nothing."
                )
            );
    }

    private static Uri? WebAddress(string text) =>
        Uri.TryCreate(text.Trim(), UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http" ? uri : null;

    private static void Money(StudioMoneyDto money, List<(string, string)> errors)
    {
        if (!Currency.All.ContainsKey(money.Currency))
            errors.Add(("money.currency", "One of the currencies in the list."));
        Text(errors, "money.taxNumber", money.TaxNumber, 0, 60);
        Text(errors, "money.bank", money.Bank, 0, 80);
        if (money.Iban.Trim().Length > 0 && !Iban.IsValid(money.Iban))
            errors.Add(("money.iban", Iban.Allowed));
        if (money.Bic.Trim().Length > 0 && !Bic.IsValid(money.Bic))
            errors.Add(("money.bic", Bic.Allowed));
        if (
            money.InvoiceSeries.Trim().Length > 10
            || !money.InvoiceSeries.Trim().All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '/')
        )
            errors.Add(("money.invoiceSeries", "Up to 10 letters, digits, - and /, or nothing."));
        if (money.InvoiceFirst is < 1 or > 99_999)
            errors.Add(("money.invoiceFirst", "From 1 to 99999."));
    }

    private static Rate Habits(StudioHabitsDto habits, List<(string, string)> errors)
    {
        if (habits.DueDays is < 0 or > MostDays)
            errors.Add(("habits.dueDays", $"From 0 to {MostDays} days."));
        if (habits.ValidDays is < 1 or > MostDays)
            errors.Add(("habits.validDays", $"From 1 to {MostDays} days."));
        if (habits.PutAwayDays is < 1 or > 3 * MostDays)
            errors.Add(("habits.putAwayDays", $"From 1 to {3 * MostDays} days, or nothing."));
        if (NumberText.Percent(habits.OnBooking) is { } share)
            return share;
        errors.Add(("habits.onBooking", $"Per cent from 0 to 100, such as 40.{NumberText.Doubt(habits.OnBooking)}"));
        return default;
    }

    private static IEnumerable<LocalDate> Hours(StudioHoursDto hours, List<(string, string)> errors, Desk desk)
    {
        if (hours.SendUntil <= hours.SendFrom)
            errors.Add(("hours.sendUntil", "Later than the beginning of the sending hours."));
        var daysOff = hours
            .DaysOff.Where(day => !string.IsNullOrWhiteSpace(day))
            .Select(day => Dates.Read(day.Trim()) ?? TypedDate.Day(day, desk.Today, desk.Calendar))
            .ToList();
        if (daysOff.Exists(day => day is null))
            errors.Add(("hours.daysOff", "One day a line, such as 24 dec 2027 or 2027-12-24, from 1900 to 2199."));
        for (var i = 0; i < hours.OpenHours.Length; i++)
            if (
                hours.OpenHours[i] is var span
                && (span.Day == IsoDayOfWeek.None || span.Until != LocalTime.Midnight && span.Until <= span.From)
            )
                errors.Add(($"hours.openHours[{i}]", "Ends later than it begins."));
        return daysOff.OfType<LocalDate>().Distinct().Order();
    }

    private static async Task<bool> HasAmountsAsync(Desk desk) =>
        await desk.Db.Projects.AnyAsync(p => p.Standing.AgreedMinor != null)
        || await desk.Db.Rehearsals.AnyAsync(p => p.Standing.AgreedMinor != null)
        || await desk.Db.Invoices.AnyAsync()
        || await desk.Db.Costs.AnyAsync();

    private static void Text(List<(string, string)> errors, string field, string value, int least, int most)
    {
        if (value.Trim().Length < least || value.Trim().Length > most)
            errors.Add((field, least == 0 ? $"At most {most} characters." : $"Write {least} to {most} characters."));
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
