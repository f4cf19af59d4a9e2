using Gesamt.Core.Amounts;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Core.Texts;
using Gesamt.Formats.Texts;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Contracts;

/// <summary>A contract's template filled from the record and the choice.</summary>
public static class ContractText
{
    /// <summary>Looks at a template's blanks and conditions.</summary>
    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static void Check(string template) => LetterText.Parse(ConditionalText.Whole(template));

    /// <summary>Filled for one choice.</summary>
    public static async Task<FilledText> FillAsync(
        Desk desk,
        ProjectFile file,
        string template,
        Offer offer,
        PricedChoice priced,
        AmendmentWords? amendment = null
    ) => Fill(await Writing.WordsAsync(desk, file) with { Amendment = amendment }, template, offer, priced);

    /// <summary>What it would lack for the choices that differ most: what is suggested, the least, and everything.</summary>
    public static async Task<IReadOnlyList<string>> GapsAsync(
        Desk desk,
        ProjectFile file,
        string template,
        Offer offer,
        PlanDates dates
    )
    {
        var record = await Writing.WordsAsync(desk, file);
        return
        [
            .. new[] { Pricing.Suggested(offer), Pricing.Least(offer), Pricing.WithEveryExtra(offer) }
                .SelectMany(choice => Fill(record, template, offer, Pricing.Of(offer, choice, dates)).Gaps)
                .Distinct(),
        ];
    }

    private static FilledText Fill(RecordWords record, string template, Offer offer, PricedChoice priced)
    {
        var words = record with
        {
            Price = priced.Totals.Payable,
            Deposit = priced.DueOnBooking,
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
        bool IsThere(string name) =>
            values.GetValueOrDefault(name) is { Length: > 0 }
            || BareText.Of(name) is { Length: > 0 } word
                && priced.Lines.Any(line => BareText.Of(line.Title).Contains(word, StringComparison.Ordinal));
        return LetterText.Parse(ConditionalText.Of(template, IsThere)).Fill(values);
    }
}
