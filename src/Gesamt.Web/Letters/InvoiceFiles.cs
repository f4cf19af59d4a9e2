using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>The invoice that goes with a letter: as PDF, and as data where it has some.</summary>
public static class InvoiceFiles
{
    /// <summary>Puts it with the letter, once, as the letter is written for its hand-over: before, in the act that issues it, nothing is drawn.</summary>
    /// <param name="letter">With its files; not tracked.</param>
    public static async Task AddAsync(Desk desk, LetterRow letter)
    {
        if (letter.CarriesInvoice is not { } id)
            return;
        var invoice = await desk.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == id);
        var paper = await KeptPapers.OfAsync(desk, invoice);
        var name = NameOf(invoice);
        await AddAsync(desk, letter, $"{name}.pdf", paper.Hash, "application/pdf");
        if (paper.Data is { } data)
            await AddAsync(desk, letter, $"{name}.xml", data, "application/xml");
    }

    /// <summary>“invoice-2027-006”.</summary>
    public static string NameOf(InvoiceRow invoice) =>
        $"{(invoice.Sort == InvoiceSort.CreditNote ? "credit-note" : "invoice")}-{invoice.Number.Replace(' ', '-').Replace('/', '-')}";

    private static async Task AddAsync(Desk desk, LetterRow letter, string name, string hash, string type)
    {
        if (letter.Files.Exists(file => file.Hash == hash))
            return;
        var row = new LetterFileRow
        {
            LetterId = letter.Id,
            Name = name,
            Hash = hash,
            Size = desk.Vault.SizeOf(hash),
            Type = type,
        };
        letter.Files.Add(row);
        desk.Db.LetterFiles.Add(row);
        await desk.Db.SaveChangesAsync();
    }
}
