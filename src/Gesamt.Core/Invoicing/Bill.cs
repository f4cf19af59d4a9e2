using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>A line of an invoice that is written by hand.</summary>
/// <param name="Key">Tells it from the others while it is edited.</param>
/// <param name="Quantity">Exact, in the unit.</param>
/// <param name="UnitPrice">Exact, in major units of the currency; net, or gross where the invoice's prices are.</param>
public sealed record BillLine(
    string Key,
    string Title,
    string Detail,
    decimal Quantity,
    string Unit,
    decimal UnitPrice,
    Tax Tax,
    Discount? Less = null
)
{
    /// <summary>The kept hours that it charges.</summary>
    public ImmutableArray<HoursId> Hours { get; init; } = [];

    /// <summary>The costs that it charges on.</summary>
    public ImmutableArray<CostId> Costs { get; init; } = [];

    /// <summary>Whether it charges what was kept, which can be charged once.</summary>
    public bool ChargesKept => !Hours.IsEmpty || !Costs.IsEmpty;

    /// <summary>With its discount.</summary>
    public PricedLine Priced(Currency currency)
    {
        var whole = new PricedLine(Quantity, UnitPrice, Money.Zero(currency), Tax.Rate) { Category = Tax.Category };
        return Less is null ? whole : whole with { Discount = Less.From(whole.Net) };
    }
}

/// <summary>The days in which something was done: one day, or several (EN 16931, BT-72 or BG-14).</summary>
public sealed record Performed(LocalDate From, LocalDate Until);

/// <summary>An invoice as it is written, before it has a number.</summary>
public sealed record Bill(Currency Currency, ImmutableArray<BillLine> Lines)
{
    /// <summary>Below its title: “second of two payments”, or what the owner writes.</summary>
    public string About { get; init; } = "";

    /// <summary>Whether the prices include the tax.</summary>
    public bool Gross { get; init; }

    public Reduction? Less { get; init; }

    /// <summary>The buyer's own reference or order number (BT-10, BT-13).</summary>
    public string PurchaseReference { get; init; } = "";

    public Performed? Performed { get; init; }

    /// <summary>Why a part of it is exempt (BT-120).</summary>
    public string ExemptReason { get; init; } = "";

    /// <summary>Printed below the sums (BT-22).</summary>
    public string Note { get; init; } = "";

    /// <summary>How many days after its issue it is due.</summary>
    public int DueDays { get; init; }

    /// <summary>Hashes and names of files of the project that go with its letter.</summary>
    public ImmutableArray<BillFile> Files { get; init; } = [];

    /// <summary>What it comes to.</summary>
    /// <exception cref="ArgumentException">The discount is more than the lines come to.</exception>
    /// <exception cref="OverflowException">The sums are more than can be counted.</exception>
    public BilledSums Sums()
    {
        var lines = Lines.Select(line => line.Priced(Currency)).ToList();
        var sum = lines.Select(line => line.Net).Sum(Currency);
        var less = Less?.Of.From(sum) ?? Money.Zero(Currency);
        return new(sum, less, Gross ? Totals.OfGrossLines(lines, less) : Totals.OfLines(lines, less));
    }
}

/// <summary>A file that goes with an invoice's letter.</summary>
public sealed record BillFile(string Hash, string Name);

/// <summary>The sums of an invoice that is being written.</summary>
/// <param name="Sum">Of its lines with their own discounts.</param>
/// <param name="Less">The discount on the whole; nothing for none.</param>
public sealed record BilledSums(Money Sum, Money Less, Totals Totals);

/// <summary>What keeps an invoice from being issued, by field.</summary>
public sealed record BillFault(string Field, string Words);

/// <summary>Looks an invoice over before it is issued.</summary>
public static class BillCheck
{
    /// <summary>Everything that is missing or wrong; nothing when it can be issued.</summary>
    /// <param name="seller">The studio's tax number, as it is typed.</param>
    /// <param name="buyer">The client's.</param>
    public static ImmutableArray<BillFault> Faults(Bill bill, string seller, string buyer)
    {
        ImmutableArray<BillFault> plain = [.. Plain(bill), .. Taxes(bill, seller, buyer)];
        return plain.IsEmpty ? [.. OfSums(bill)] : plain;
    }

    private static IEnumerable<BillFault> Plain(Bill bill)
    {
        if (bill.Lines.IsEmpty)
            yield return new("lines", "An invoice needs at least one line.");
        foreach (var (line, i) in bill.Lines.Select((line, i) => (line, i)))
        {
            var named = line.Title.Length > 0 ? $"“{line.Title}”" : "this line";
            if (string.IsNullOrWhiteSpace(line.Title))
                yield return new($"lines[{i}].title", "Every line needs its words.");
            if (line.Quantity is <= 0 or > 1_000_000)
                yield return new(
                    $"lines[{i}].quantity",
                    $"The quantity of {named} must be more than 0 and at most 1 000 000."
                );
            if (line.UnitPrice is < 0 or > 100_000_000)
                yield return new($"lines[{i}].unitPrice", $"The price of {named} must lie between 0 and 100 000 000.");
            if (line.Less is Discount.Amount { Major: <= 0 } or Discount.Share { Of.PartsPerMillion: <= 0 })
                yield return new(
                    $"lines[{i}].less",
                    $"The discount on {named} is nothing. Leave it out if there is none."
                );
        }
        if (bill.Less is { Of: Discount.Amount { Major: <= 0 } or Discount.Share { Of.PartsPerMillion: <= 0 } })
            yield return new("less", "A discount is more than nothing. Leave it out if there is none.");
        if (bill.Performed is { } performed && performed.Until < performed.From)
            yield return new("performedUntil", "The last day lies before the first.");
        if (bill.DueDays is < 0 or > 365)
            yield return new("dueDays", "From 0 to 365 days.");
    }

    /// <summary>EN 16931: BR-S-2, BR-E-10, BR-AE-2 to 4.</summary>
    private static IEnumerable<BillFault> Taxes(Bill bill, string seller, string buyer)
    {
        bool Has(TaxCategory category) => bill.Lines.Any(line => line.Tax.Category == category);
        if (Has(TaxCategory.Exempt) && string.IsNullOrWhiteSpace(bill.ExemptReason))
            yield return new("exemptReason", "Say why it is exempt: the paper must give the reason.");
        if (!Has(TaxCategory.ReverseCharge))
            yield break;
        if (string.IsNullOrWhiteSpace(seller))
            yield return new(
                "lines",
                "Under reverse charge your own tax number must stand on the invoice. Write it on the studio’s page."
            );
        if (string.IsNullOrWhiteSpace(buyer))
            yield return new(
                "lines",
                "Under reverse charge the client’s tax number must stand on the invoice. Write it on the client’s page."
            );
    }

    private static IEnumerable<BillFault> OfSums(Bill bill)
    {
        BillFault? fault = null;
        try
        {
            var sums = bill.Sums();
            if (bill.Lines.Any(line => line.Priced(bill.Currency).Net.Minor < 0))
                fault = new("lines", "The discount on a line is more than the line comes to.");
            else if (sums.Totals.Payable.Minor <= 0)
                fault = new("lines", "An invoice asks for more than nothing.");
        }
        catch (ArgumentException)
        {
            fault = new("less", "The discount is more than the lines come to.");
        }
        catch (OverflowException)
        {
            fault = new("lines", "The price is more than can be counted. Look at the quantities.");
        }
        if (fault is not null)
            yield return fault;
    }
}
