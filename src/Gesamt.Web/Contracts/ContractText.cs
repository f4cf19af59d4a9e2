using Gesamt.Core.Amounts;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Texts;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Contracts;

/// <summary>A contract's template filled from the record and the choice.</summary>
public static class ContractText
{
    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static async Task<FilledText> FillAsync(
        Desk desk,
        ProjectFile file,
        string template,
        Offer offer,
        PricedChoice priced
    )
    {
        var words = await Writing.WordsAsync(desk, file) with
        {
            Price = priced.Totals.Payable,
            Deposit = priced.DueOnBooking(offer),
            ValidUntil = offer.ValidUntil,
            Choice = string.Join(
                '\n',
                priced.Lines.Select(line =>
                    $"{line.Words}: {MoneyText.Of(line.Priced(offer.Currency).Net)} {(offer.Gross ? "with tax" : "net")}"
                )
            ),
            Payments = string.Join('\n', priced.Instalments.Select(i => $"{i.Words}: {MoneyText.Of(i.Part.Payable)}")),
        };
        // what others wrote is no Markdown
        var values = Blanks
            .Of(words)
            .ToDictionary(blank => blank.Key, blank => blank.Value is { } value ? MarkdownText.Escaped(value) : null);
        return LetterText.Parse(template).Fill(values);
    }
}
