using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Letters;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>A template filled from a record.</summary>
public sealed record FilledLetter(string Subject, string Body, IReadOnlyList<string> Gaps)
{
    /// <summary>What goes with every letter of it.</summary>
    public IReadOnlyList<LetterFileRow> Files { get; init; } = [];
}

/// <summary>Fills letters from the record.</summary>
public static class Writing
{
    // asked for each of thousands of letters that become due at once
    private static readonly Func<GesamtDb, ProjectId, Task<string?>> Draft = EF.CompileAsyncQuery(
        (GesamtDb db, ProjectId project) =>
            db.OfferDrafts.Where(d => d.ProjectId == project).Select(d => d.Offer).SingleOrDefault()
    );

    /// <inheritdoc cref="FillAsync(Desk, ProjectFile, LetterTemplateRow, Func{RecordWords, RecordWords}?)"/>
    /// <exception cref="MissingException">There is no letter of that key.</exception>
    public static async Task<FilledLetter> FillAsync(
        Desk desk,
        ProjectFile file,
        string template,
        Func<RecordWords, RecordWords>? with = null
    ) => await FillAsync(desk, file, await TemplateAsync(desk, file.Row.KindId, template), with);

    /// <summary>Fills a template from a record. Only what its blanks ask for is looked up.</summary>
    /// <param name="with">What it can say besides what the record knows.</param>
    public static async Task<FilledLetter> FillAsync(
        Desk desk,
        ProjectFile file,
        LetterTemplateRow template,
        Func<RecordWords, RecordWords>? with = null
    )
    {
        var (subject, body) = (LetterText.Parse(template.Subject), LetterText.Parse(template.Body));
        var words = await WordsAsync(desk, file, subject.Asked.Concat(body.Asked).ToHashSet());
        return Fill(subject, body, with is null ? words : with(words)) with
        {
            Files =
            [
                .. template.Files.Select(f => new LetterFileRow
                {
                    Name = f.Name,
                    Hash = f.Hash,
                    Size = f.Size,
                    Type = f.Type,
                }),
            ],
        };
    }

    /// <summary>A letter as a kind of project words it, with the files that go with it.</summary>
    /// <exception cref="MissingException">There is no letter of that key.</exception>
    public static async Task<LetterTemplateRow> TemplateAsync(Desk desk, KindId kind, string key) =>
        await desk.Db.LetterTemplates.AsNoTracking().Include(t => t.Files).For(kind, key).FirstOrDefaultAsync()
        ?? throw new MissingException("letter");

    /// <summary>Speaks of one invoice, where otherwise the earliest open one would be meant.</summary>
    public static async Task<Func<RecordWords, RecordWords>> AboutInvoiceAsync(
        Desk desk,
        ProjectFile file,
        Happening.InvoiceIssued invoice
    )
    {
        var row = await desk.Db.Invoices.AsNoTracking().SingleOrDefaultAsync(i => i.Id == invoice.Invoice);
        var paying = row is null ? null : PayingWays.Of(desk, row);
        return words =>
            words with
            {
                InvoiceNumber = row?.Number,
                Paying = paying,
                InvoiceDue = invoice.Due,
                InvoiceOwed = Owed.On(file.History, invoice),
            };
    }

    /// <exception cref="InvalidException">There is no such person.</exception>
    public static async Task<PersonRow> ColleagueAsync(Desk desk, long id) =>
        await desk.Db.People.AsNoTracking().SingleOrDefaultAsync(p => p.Id == new PersonId(id) && p.RemovedAt == null)
        ?? throw new InvalidException(("colleague", "There is no such person."));

    /// <summary>Names a colleague with how they are reached: “Ines Tolliver, Tolliver Signs, ines@tolliver.example”.</summary>
    public static Func<RecordWords, RecordWords> About(PersonRow? colleague) =>
        words =>
            colleague is null
                ? words
                : words with
                {
                    Colleague = string.Join(
                        ", ",
                        new[]
                        {
                            colleague.Name,
                            colleague.Organisation,
                            colleague.Mail ?? colleague.Phone ?? colleague.Profile,
                        }.OfType<string>()
                    ),
                };

    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static FilledLetter Fill(string subject, string body, RecordWords words) =>
        Fill(LetterText.Parse(subject), LetterText.Parse(body), words);

    /// <summary>Fills what is still open in a letter that was filled before: the client's own words in it are never read as blanks.</summary>
    public static FilledLetter FillOpen(string subject, string body, RecordWords words) =>
        Fill(LetterText.ParseFilled(subject), LetterText.ParseFilled(body), words);

    private static FilledLetter Fill(LetterText subject, LetterText body, RecordWords words)
    {
        var values = Blanks.Of(Unlinked(words));
        var (head, text) = (subject.Fill(values), body.Fill(values));
        return new(head.Text, text.Text, [.. head.Gaps.Concat(text.Gaps).Distinct()]);
    }

    /// <summary>What strangers typed into the record stands in a letter as a bounded line that no mail program links.</summary>
    private static RecordWords Unlinked(RecordWords words) =>
        words with
        {
            Greeted = words.Greeted is { } greeted ? Typed.Unlinked(greeted) : null,
            Name = words.Name is { } name ? Typed.Unlinked(name) : null,
            Organisation = words.Organisation is { } organisation ? Typed.Unlinked(organisation) : null,
            Project = Typed.Unlinked(words.Project),
        };

    /// <summary>What the record can tell a letter now.</summary>
    /// <param name="asked">The blanks that will be filled: what no other of them needs is not looked up. Null for all.</param>
    public static async Task<RecordWords> WordsAsync(Desk desk, ProjectFile file, IReadOnlySet<string>? asked = null)
    {
        bool Asks(params string[] blanks) => asked is null || asked.Overlaps(blanks);
        var history = file.History;
        var price = AgreedPrice.Of(history);
        var proposal = history.Last<Happening.ProposalSent>();
        var invoice = Owed.Open(history).Select(open => open.Invoice.What).FirstOrDefault();
        var billed =
            invoice is null || !Asks("invoice number", "invoice link", "payment reference", "ways to pay")
                ? null
                : await desk.Db.Invoices.AsNoTracking().SingleOrDefaultAsync(i => i.Id == invoice.Invoice);
        var client = file.Row.Client!;
        // the draft is what goes out next; what was sent before may be valid until another day
        var draft = Asks("valid until", "proposal link") ? await Draft(desk.Db, file.Id) : null;
        var validUntil = draft is null ? proposal?.What.ValidUntil : StoreJson.Read<Offer>(draft).ValidUntil;
        var came = history.Last<Happening.InquiryCame>()?.Happened ?? desk.Now;
        return new(
            client.Greeted,
            client.Name,
            client.Organisation,
            file.Row.Title,
            file.Row.Kind!.Name,
            file.Case.MainDate?.Date,
            desk.Studio.Name,
            desk.Studio.Owner,
            price?.Agreed,
            price?.DueOnBooking,
            validUntil,
            Promise.ReplyBy(desk.Calendar, desk.Calendar.DateOf(came), file.Case.Kind),
            InvoiceNumber: billed?.Number,
            Paying: billed is null ? null : PayingWays.Of(desk, billed),
            InvoiceDue: invoice?.Due,
            InvoiceOwed: invoice is null ? null : Owed.On(history, invoice),
            HasProposal: proposal is not null || draft is not null,
            Rates: Asks("rates") ? await RatesAsync(desk, file) : null,
            Cancelling: CancelStep.Words(file.Case.Kind.CancelTerms, file.Case.Kind.MainDate),
            Progress: Asks("progress") ? await Progress.OfAsync(desk, file) : null
        );
    }

    /// <summary>The kind's services with their prices, a line each: the rate sheet.</summary>
    private static async Task<string?> RatesAsync(Desk desk, ProjectFile file)
    {
        var services = await desk
            .Db.Services.AsNoTracking()
            .Where(s => s.KindId == file.Row.KindId)
            .OrderBy(s => s.KindId == null)
            .ThenBy(s => s.Position)
            .ToListAsync();
        return services.Count == 0
            ? null
            : string.Join(
                '\n',
                services.Select(s =>
                    $"{s.Title}{(s.Unit.Length > 0 ? $", per {UnitWords.One(s.Unit)}" : "")}: {MoneyText.Of(Money.Of(decimal.Round(s.UnitPrice, desk.Currency.Exponent), desk.Currency))} {(s.Gross ? "with tax" : "net")}"
                )
            );
    }
}
