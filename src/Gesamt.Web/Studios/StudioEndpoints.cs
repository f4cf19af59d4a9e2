using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Meetings;
using Gesamt.Core.Texts;
using Gesamt.Formats.Files;
using Gesamt.Formats.Invoices;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Templates;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Studios;

/// <summary>The addresses of the studio’s settings.</summary>
public static class StudioEndpoints
{
    public static void MapStudio(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/studio",
            (Desk desk, HttpContext http, Doorplate plate, Settings settings) =>
                OfAsync(desk, plate.AddressSeenBy(http), settings)
        );
        api.MapPut(
            "/studio",
            async (SaveStudioDto save, Desk desk, Doorplate plate, Live live) =>
            {
                await SavedStudio.SaveAsync(desk, plate, save);
                live.ChangedAll();
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
                "/studio/logo",
                async (string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                {
                    var (_, hash, _, type) = await KeptFiles.TakeAsync(vault, name, http.Request.Body, stop);
                    if (!FileTypes.IsShownPicture(type))
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
            "/first-steps/{step}/done",
            async (FirstStep step, Desk desk) =>
            {
                await desk.ActAsync(act => OpenSteps.DoneAsync(desk, step));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/first-steps/{step}/open",
            async (FirstStep step, Desk desk) =>
            {
                await desk.ActAsync(act => OpenSteps.OpenAgainAsync(desk, step));
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

    private static async Task<StudioDto> OfAsync(Desk desk, string origin, Settings settings)
    {
        var row = await desk.Db.Studio.AsNoTracking().SingleAsync();
        return new(
            new(
                row.Edition,
                new(row.Name, row.Owner, row.Mail, row.Phone, row.Site, row.Address, row.Signature, row.ClientAddress),
                new(row.Brand, row.Logo is not null),
                new(
                    row.Currency,
                    row.TaxNumber,
                    row.Bank,
                    row.Iban,
                    row.Bic,
                    row.InvoiceSeries,
                    row.InvoiceFirst,
                    await Issuing.NextNumberAsync(desk)
                ),
                new(
                    NumberText.Number(row.Habits().OnBooking.InPercent),
                    row.DueDays,
                    row.ValidDays,
                    row.SignsAtOnce,
                    row.PutAwayDays,
                    row.HoursOff
                ),
                new(row.Zone, row.Numbers, row.Days, row.Clock),
                new(
                    row.SendFrom,
                    row.SendUntil,
                    [.. StoreJson.Read<List<LocalDate>>(row.DaysOff).Order().Select(LocalDatePattern.Iso.Format)],
                    StoreJson.Read<OpenSpan[]>(row.OpenHours)
                ),
                SavedBilling.Of(row)
            ),
            row.FeedKey is null ? "" : $"{origin}/feed/{row.FeedKey}.ics",
            settings.Address.Length > 0 ? settings.Address : null,
            Choices(desk)
        );
    }

    private static StudioChoicesDto Choices(Desk desk)
    {
        var sample = Money.Of(1234.5m, desk.Currency);
        var (day, time) = (desk.Today, new LocalTime(14, 30));
        return new(
            [.. Currency.All.Keys.Order(StringComparer.Ordinal)],
            Countries.All,
            StartingSets.Zones(),
            Looks<NumberLook>(numbers => MoneyText.Of(sample), (style, numbers) => style with { Numbers = numbers }),
            Looks<DayOrder>(
                _ => $"{DateWords.Short(day, day)}, {DateWords.Long(day)}",
                (style, days) => style with { Days = days }
            ),
            Looks<ClockHours>(_ => DateWords.Time(time), (style, clock) => style with { Clock = clock })
        );
    }

    /// <summary>Each style with what something looks like in it.</summary>
    private static List<StyleChoiceDto> Looks<T>(Func<T, string> words, Func<HouseStyle, T, HouseStyle> with)
        where T : struct, Enum
    {
        var here = HouseStyle.Current;
        try
        {
            List<StyleChoiceDto> choices = [];
            foreach (var value in Enum.GetValues<T>())
            {
                HouseStyle.Current = with(here, value);
                choices.Add(new(value.ToString(), words(value)));
            }
            return choices;
        }
        finally
        {
            HouseStyle.Current = here;
        }
    }
}
