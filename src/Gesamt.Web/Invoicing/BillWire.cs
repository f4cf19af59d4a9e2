using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Invoicing;

/// <summary>Invoices as the page edits them.</summary>
public static class BillWire
{
    public static BillDto Of(Bill bill) =>
        new(
            bill.Currency.Code,
            bill.Gross,
            [.. bill.Lines.Select(Of)],
            bill.Less is { } less ? TypedDiscount.Of(less.Of, less.Why) : null,
            new(
                bill.About,
                bill.PurchaseReference,
                bill.Performed?.From,
                bill.Performed?.Until,
                bill.ExemptReason,
                bill.Note,
                bill.DueDays,
                [.. bill.Files.Select(file => new BillFileDto(file.Hash, file.Name))]
            )
        );

    private static BillLineDto Of(BillLine line) =>
        new(
            line.Key,
            line.Title,
            line.Detail,
            NumberText.Number(line.Quantity),
            line.Unit,
            NumberText.Number(line.UnitPrice),
            TaxText.Of(line.Tax.Rate, line.Tax.Category),
            line.Less is { } less ? TypedDiscount.Of(less) : null,
            line.Hours.IsEmpty ? null : [.. line.Hours.Select(id => id.Value)],
            line.Costs.IsEmpty ? null : [.. line.Costs.Select(id => id.Value)]
        );
}

/// <summary>Reads an invoice as it was typed; every number is checked and named by its field.</summary>
internal sealed class BillReading : TypedFields
{
    private const int MostLines = 200,
        MostFiles = 10,
        MostKept = 1_000;

    /// <exception cref="InvalidException">A number or a rate is not one, or something is longer than can be kept.</exception>
    public static Bill Of(BillDto dto, Currency otherwise)
    {
        var reading = new BillReading();
        var bill = reading.Read(dto, otherwise);
        reading.Demand();
        return bill;
    }

    private Bill Read(BillDto dto, Currency otherwise)
    {
        if (dto.Lines.Length > MostLines)
            Wrong("lines", $"An invoice has at most {MostLines} lines; these are {dto.Lines.Length}.");
        var says = dto.Says;
        if (says.Files.Length > MostFiles)
            Wrong("files", $"At most {MostFiles} files go with an invoice; these are {says.Files.Length}.");
        if (says.DueDays is < 0 or > 365)
            Wrong("dueDays", "From 0 to 365 days.");
        return new(CurrencyOf(dto.Currency, otherwise), [.. dto.Lines.Select(Line)])
        {
            About = Text("about", says.About, 200),
            Gross = dto.Gross,
            Less = dto.Less is { } less ? new(DiscountOf("less", less), Text("less", less.Why, 200)) : null,
            PurchaseReference = Text("purchaseReference", says.PurchaseReference, 100),
            Performed = (says.PerformedFrom ?? says.PerformedUntil) is { } from
                ? new(from, says.PerformedUntil ?? from)
                : null,
            ExemptReason = Text("exemptReason", says.ExemptReason, 300),
            Note = Text("note", says.Note, 2_000),
            DueDays = Math.Clamp(says.DueDays, 0, 365),
            Files = [.. says.Files.Select((file, i) => new BillFile(Hash($"files[{i}]", file.Hash), file.Name))],
        };
    }

    private BillLine Line(BillLineDto line, int i)
    {
        var at = $"lines[{i}]";
        var (rate, category) = Tax($"{at}.tax", line.Tax, line.Title);
        return new(
            line.Key,
            Text($"{at}.title", line.Title, 200),
            Text($"{at}.detail", line.Detail, 500),
            Number($"{at}.quantity", line.Quantity, $"The quantity of “{line.Title}”"),
            Text($"{at}.unit", line.Unit, 40),
            Number($"{at}.unitPrice", line.UnitPrice, $"The price of “{line.Title}”"),
            new(rate, category),
            line.Less is { } less ? DiscountOf($"{at}.less", less) : null
        )
        {
            Hours = [.. Ids(at, line.Hours).Select(id => new HoursId(id))],
            Costs = [.. Ids(at, line.Costs).Select(id => new CostId(id))],
        };
    }

    private IEnumerable<long> Ids(string at, long[]? ids)
    {
        if (ids?.Length > MostKept)
            Wrong($"{at}.title", $"A line charges at most {MostKept} entries of hours or costs.");
        return (ids ?? []).Distinct();
    }
}
