using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Formats.Bank;
using Gesamt.Formats.Tables;
using Gesamt.Web.Banking;
using Gesamt.Web.Hosting;
using NodaTime.Text;

namespace Gesamt.Web.StandIns;

/// <summary>In what form a bank gives out a statement.</summary>
public enum StatementForm
{
    Camt08,
    Camt02,
    Table,
}

/// <summary>How a client pays an invoice from their account.</summary>
public enum PaidBy
{
    /// <summary>With its reference, as it stands on it.</summary>
    Reference,

    /// <summary>With its number somewhere in the text.</summary>
    Number,

    /// <summary>Half of it, by number.</summary>
    Half,

    /// <summary>With no word of what it is for.</summary>
    Name,

    /// <summary>Ten units too much.</summary>
    More,
}

/// <summary>The stand-in for the studio's bank: writes statements in which clients pay what is open in the ways clients do.</summary>
internal static class StandInBank
{
    private const int MostInvoices = 12;
    private static readonly PaidBy[] Ways = Enum.GetValues<PaidBy>();

    /// <summary>Today's statement: what is due first is paid, each invoice in another way. Asked again on the same day, the same payments are the same lines.</summary>
    public static async Task<(byte[] File, string Name)> TodayAsync(Desk desk, StatementForm form) =>
        Write(
            desk,
            form,
            (await BankBooking.OpenAsync(desk))
                .Where(invoice => invoice.Owed.Currency == desk.Currency)
                .OrderBy(invoice => invoice.Due)
                .ThenBy(invoice => invoice.Invoice.Value)
                .Take(MostInvoices)
                .Select((invoice, i) => Paid(desk, invoice, Ways[i % Ways.Length]))
        );

    /// <summary>A statement of these lines, and what happens on every account.</summary>
    public static (byte[] File, string Name) Write(Desk desk, StatementForm form, IEnumerable<BankLine> lines)
    {
        var day = LocalDatePattern.Iso.Format(desk.Today);
        var statement = new BankStatement(
            desk.Studio.Iban.Length > 0 ? desk.Studio.Iban : "IE29AIBK93115212345678",
            [
                .. lines,
                Line(desk, Money.Of(1.12m, desk.Currency), "Harbour Savings", "interest"),
                Line(desk, Money.Of(-84.50m, desk.Currency), "Quay Paints", "varnish, two tins"),
            ]
        );
        return form == StatementForm.Table
            ? (Table(statement), $"statement-{day}.csv")
            : (
                Camt053.Write(
                    statement,
                    $"S{day}",
                    desk.Now,
                    form == StatementForm.Camt02 ? Camt053Version.V02 : Camt053Version.V08
                ),
                $"statement-{day}.xml"
            );
    }

    /// <summary>The line with which a client pays an invoice today.</summary>
    public static BankLine Paid(Desk desk, OpenInvoice invoice, PaidBy way)
    {
        var (number, payer, owed) = (invoice.Number, invoice.Payers[0], invoice.Owed);
        var key = string.Create(CultureInfo.InvariantCulture, $"{number}-{owed.Minor}");
        return way switch
        {
            PaidBy.Reference => Line(desk, owed, payer, "", invoice.Reference, key),
            PaidBy.Number => Line(desk, owed, payer, $"Invoice {number}, thank you", "", key),
            PaidBy.Half => Line(
                desk,
                owed with
                {
                    Minor = Math.Max(1, owed.Minor / 2),
                },
                payer,
                $"first half of {number}",
                "",
                key
            ),
            PaidBy.Name => Line(desk, owed, payer, "with thanks", "", key),
            _ => Line(desk, owed + Money.Of(10, owed.Currency), payer, "", invoice.Reference, key),
        };
    }

    private static BankLine Line(
        Desk desk,
        Money amount,
        string party,
        string text,
        string reference = "",
        string? key = null
    ) => new(desk.Today, amount, party, text, reference, $"{LocalDatePattern.Iso.Format(desk.Today)}-{key ?? party}");

    private static byte[] Table(BankStatement statement) =>
        Csv.Write(
            ["Booking date", "Amount", "Currency", "Name", "Description", "Structured reference", "Transaction id"],
            statement.Lines.Select(line =>
                (IReadOnlyList<string>)
                    [
                        LocalDatePattern.Iso.Format(line.On),
                        MoneyText.Exact(line.Amount),
                        line.Amount.Currency.Code,
                        line.Party,
                        line.Text,
                        line.Reference,
                        line.BankReference,
                    ]
            )
        );
}
