using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using Gesamt.Formats.Invoices;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using NodaTime;

namespace Gesamt.Web.Studios;

/// <summary>What the studio's invoices say, and what it asks for late payment, as it is edited.</summary>
internal static class SavedBilling
{
    private const int MostRates = 100;

    public static StudioBillingDto Of(StudioRow row)
    {
        var late = row.LateTerms is { } terms ? StoreJson.Read<LateTerms>(terms) : new LateTerms.Nothing();
        return new(
            row.Country,
            row.InvoiceNote,
            row.PayAt,
            row.ExemptReason,
            late switch
            {
                LateTerms.Fixed => LateSort.Fixed,
                LateTerms.PerMonth => LateSort.PerMonth,
                LateTerms.Statutory => LateSort.Statutory,
                _ => LateSort.Nothing,
            },
            late switch
            {
                LateTerms.Fixed sum => NumberText.Number(sum.Amount),
                LateTerms.PerMonth month => NumberText.Number(month.Of.InPercent),
                _ => "",
            },
            [
                .. StoreJson
                    .Read<List<ReferenceRate>>(row.ReferenceRates)
                    .OrderByDescending(rate => rate.From)
                    .Select(rate => new HalfYearRateDto(
                        rate.From.Year,
                        rate.From.Month < 7 ? 1 : 2,
                        NumberText.Number(rate.Percent)
                    )),
            ]
        );
    }

    /// <summary>Puts it into the row; what is wrong is gathered by its field.</summary>
    public static void Put(StudioRow row, StudioBillingDto? billing, List<(string, string)> errors)
    {
        if (billing is null)
            return;
        string Text(string field, string value, int most)
        {
            if (value.Trim().Length > most)
                errors.Add(($"billing.{field}", $"At most {most} characters."));
            return value.Trim();
        }
        var country = billing.Country.Trim().ToUpperInvariant();
        if (country.Length > 0 && !Countries.IsCode(country))
            errors.Add(("billing.country", "A country by its two letters, such as IE or AT; or nothing."));
        (row.Country, row.InvoiceNote) = (country, Text("invoiceNote", billing.InvoiceNote, 500));
        (row.PayAt, row.ExemptReason) = (
            Text("payAt", billing.PayAt, 200),
            Text("exemptReason", billing.ExemptReason, 300)
        );
        LateTerms? late = billing.Late switch
        {
            LateSort.Fixed => new LateTerms.Fixed(Figure(billing, 100_000, errors)),
            LateSort.PerMonth => new LateTerms.PerMonth(Rate.Percent(Figure(billing, 10, errors))),
            LateSort.Statutory => new LateTerms.Statutory(),
            _ => null,
        };
        row.LateTerms = late is null ? null : StoreJson.Write(late);
        row.ReferenceRates = StoreJson.Write(Rates(billing.Rates, errors));
    }

    private static decimal Figure(StudioBillingDto billing, decimal most, List<(string, string)> errors)
    {
        if (
            NumberText.Exact(billing.LateFigure) is { } figure
            && figure > 0
            && figure <= most
            && decimal.Round(figure, 4) == figure
        )
            return figure;
        errors.Add(
            (
                "billing.lateFigure",
                $"{(billing.Late == LateSort.Fixed ? "An amount" : "Per cent a month")} above 0 and up to {NumberText.Number(most)}.{NumberText.Doubt(billing.LateFigure)}"
            )
        );
        return 1;
    }

    private static List<ReferenceRate> Rates(HalfYearRateDto[] rates, List<(string, string)> errors)
    {
        if (rates.Length > MostRates)
            errors.Add(("billing.rates", $"At most {MostRates} half-years."));
        List<ReferenceRate> read = [];
        foreach (var (rate, i) in rates.Take(MostRates).Select((rate, i) => (rate, i)))
        {
            var percent = NumberText.Exact(rate.Percent);
            if (rate.Year is < 2002 or > 2100 || rate.Half is not (1 or 2))
                errors.Add(($"billing.rates[{i}].year", "A year from 2002 to 2100, and its first or second half."));
            else if (percent is < -5 or > 30 or null)
                errors.Add(($"billing.rates[{i}].percent", $"Per cent from -5 to 30.{NumberText.Doubt(rate.Percent)}"));
            else if (read.Exists(one => one.From.Year == rate.Year && one.From.Month < 7 == (rate.Half == 1)))
                errors.Add(($"billing.rates[{i}].year", "This half-year stands here twice."));
            else
                read.Add(new(new LocalDate(rate.Year, rate.Half == 1 ? 1 : 7, 1), percent.Value));
        }
        return read;
    }
}
