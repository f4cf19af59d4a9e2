using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Turns;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Gesamt.Web.People;
using Gesamt.Web.Proposals;
using Gesamt.Web.StandIns;
using Gesamt.Web.WhatHappened;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Gesamt.Web.Demo;

/// <summary>What the people of the demo do, through the same acts as everybody's.</summary>
public sealed class DemoActs(IServiceProvider services, IReadOnlyDictionary<string, DemoProject> projects)
{
    private readonly Dictionary<string, ProjectId> ids = [];

    /// <exception cref="FormatException">The act is unknown, or the project does not exist yet.</exception>
    public async Task PlayAsync(DemoEvent happening)
    {
        await using var scope = services.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var project = projects[happening.Project];
        if (happening.Act == "inquiry")
        {
            ids[project.Title] = await InquireAsync(desk, project);
            return;
        }
        if (!ids.TryGetValue(project.Title, out var id))
            throw new FormatException($"{project.Title}: “{happening.Act}” comes before its inquiry.");
        try
        {
            await PlayAsync(desk, scope.ServiceProvider.GetRequiredService<PostOffice>(), project, id, happening);
        }
        catch (Exception e) when (e is RefusedException or InvalidException or OfferException)
        {
            throw new FormatException($"{project.Title}, {happening.Act}: {e.Message}", e);
        }
    }

    private Task PlayAsync(Desk desk, PostOffice post, DemoProject project, ProjectId id, DemoEvent e) =>
        e.Act switch
        {
            "letter" => LetterAsync(desk, id, e.Rest),
            "writes" => WritesAsync(desk, post, id, project, e.Rest),
            "proposal" => ProposeAsync(desk, id, e.Rest),
            "opens" => OpenAsync(desk, id),
            "chooses" => ChooseAsync(desk, id),
            "change" => ChangeAsync(desk, id, e.Rest),
            "signs" => SignAsync(desk, services.GetRequiredService<SignCodes>(), id, project.Person),
            "countersign" => SayAsync(desk, id, HappenedSort.Countersign, desk.Studio.Owner),
            "pays" => PayAsync(desk, id),
            "worked" => DemoMoney.WorkedAsync(desk, id, e.Rest),
            "cost" => DemoMoney.CostAsync(desk, id, e.Rest),
            "pays part" => DemoMoney.PaysPartAsync(desk, id, e.Rest),
            "recurs" => DemoMoney.RecursAsync(desk, id, e.Rest),
            "agrees" => DemoMoney.AgreesAsync(desk, services.GetRequiredService<PaymentHouse>(), id, e.Rest),
            "statement" => DemoMoney.StatementAsync(desk, e.Rest),
            "task done" => TaskAsync(desk, id, e.Rest),
            "note" => NoteAsync(desk, id, e.Rest),
            "rest" => Happened.RecordAsync(
                desk,
                id,
                new(
                    HappenedSort.Rest,
                    Words: "They asked for time",
                    Until: desk.Today.PlusDays(int.Parse(e.Rest, CultureInfo.InvariantCulture))
                ),
                "",
                ""
            ),
            "release" => ReleaseAsync(desk, id),
            "meets" => new DemoTalk(services).SetAsync(desk, id, e.Rest),
            "met" => new DemoTalk(services).HeldAsync(desk, id, e.Rest),
            "stray" => DemoTalk.StrayAsync(desk, post, e.Rest),
            _ when DemoSelling.Knows(e.Act) => DemoSelling.PlayAsync(desk, id, e),
            _ when DemoLists.Knows(e.Act) => DemoLists.PlayAsync(desk, id, project, e),
            _ when DemoWork.Knows(e.Act) => DemoWork.PlayAsync(
                desk,
                services.GetRequiredService<FileVault>(),
                id,
                project,
                e
            ),
            _ => SayAsync(
                desk,
                id,
                Enum.TryParse<HappenedSort>(e.Act.Replace(" ", ""), ignoreCase: true, out var sort)
                    ? sort
                    : throw new FormatException($"Unknown act “{e.Act}”."),
                e.Rest
            ),
        };

    private static async Task<ProjectId> InquireAsync(Desk desk, DemoProject project)
    {
        var form = await desk.Db.Forms.AsNoTracking().SingleAsync(f => f.Slug == project.Kind);
        var answers = new Dictionary<string, string>
        {
            ["name"] = project.Person,
            ["mail"] = project.Mail,
            ["wish"] = project.Words,
            ["source"] = project.Source,
            ["consent"] = "yes",
        };
        if (project.Organisation is { } firm)
            answers["organisation"] = firm;
        if (project.DateIn is { } days)
            answers["date"] = desk.Today.PlusDays(days).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
        foreach (
            var field in StoreJson
                .Read<List<FormField>>(form.Fields)
                .Where(f => f.Required && !answers.ContainsKey(f.Key))
        )
            answers[field.Key] = field.Sort switch
            {
                FieldSort.Number => "24",
                FieldSort.OneOf => field.Options!.Value[0],
                _ => "to be seen",
            };
        var id = await Inquiry.ReceiveAsync(desk, form, answers, project.Campaign);
        await desk
            .Db.Projects.Where(p => p.Id == id)
            .ExecuteUpdateAsync(set => set.SetProperty(p => p.Title, project.Title));
        await KnownAgainAsync(desk, id, project);
        return id;
    }

    /// <summary>The owner knows who comes again; the newest she has not looked at yet.</summary>
    private static async Task KnownAgainAsync(Desk desk, ProjectId id, DemoProject project)
    {
        desk.Db.ChangeTracker.Clear();
        var now = await desk.Db.Projects.Where(p => p.Id == id).Select(p => p.ClientId).SingleAsync();
        var before = await desk
            .Db.People.Where(p =>
                p.Id != now && p.Name == project.Person && p.Mail == project.Mail && p.MergedInto == null
            )
            .Select(p => (PersonId?)p.Id)
            .FirstOrDefaultAsync();
        if (before is { } known && project.Known)
            await Matches.MergeAsync(desk, now, known, []);
    }

    private static async Task LetterAsync(Desk desk, ProjectId id, string text)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            await LettersOut.ClaimAsync(
                act,
                file,
                $"{file.Row.Title}",
                $"Hello [first name, or: there],\n\n{text}\n\n[owner]",
                null
            );
        });
    }

    private static async Task WritesAsync(Desk desk, PostOffice post, ProjectId id, DemoProject project, string text)
    {
        var row = await desk.Db.Projects.AsNoTracking().SingleAsync(p => p.Id == id);
        post.Write(
            new MailboxAddress(project.Person, project.Mail),
            MailboxAddress.Parse(Sending.ReplyAddress(desk, row)),
            $"Re: {row.Title}",
            text,
            desk.Now.ToDateTimeOffset(),
            null
        );
    }

    /// <summary>“Gable mural × 31, one of Scaffold × 6 / Scissor lift × 4, extra Hand-lettered name × 14; valid 14”.</summary>
    private static async Task ProposeAsync(Desk desk, ProjectId id, string text)
    {
        var parts = text.Split(';', StringSplitOptions.TrimEntries);
        var valid = parts.Length > 1 ? int.Parse(parts[1].Replace("valid ", ""), CultureInfo.InvariantCulture) : 14;
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var draft = await Drafts.OfAsync(desk, file);
            var services_ = await desk.Db.Services.AsNoTracking().Where(s => s.KindId == file.Row.KindId).ToListAsync();
            var lines = parts[0]
                .Split(',', StringSplitOptions.TrimEntries)
                .SelectMany((item, i) => Lines(item, i, services_))
                .ToList();
            var offer = StoreJson.Read<Offer>(draft.Offer) with
            {
                Lines = [.. lines],
                ValidUntil = desk.Today.PlusDays(valid),
                Parts =
                [
                    .. file.Row.Summary is { Length: > 0 } why
                        ? new[] { new OfferPart.Words(TextSort.Why, "Why", why) }
                        : [],
                    new OfferPart.Services(),
                ],
            };
            await Drafts.SaveAsync(desk, file, offer, draft.Contract, null, draft.Edition);
        });
        var template = await desk.Db.LetterTemplates.AsNoTracking().SingleAsync(t => t.Key == "proposal");
        await Drafts.SendAsync(desk, id, template.Subject, template.Body);
    }

    private static IEnumerable<OfferLine> Lines(string item, int index, List<ServiceRow> known)
    {
        var (role, rest) =
            item.StartsWith("one of ", StringComparison.Ordinal) ? (LineRole.OneOf, item[7..])
            : item.StartsWith("extra ", StringComparison.Ordinal) ? (LineRole.Extra, item[6..])
            : (LineRole.Included, item);
        foreach (var (one, j) in rest.Split('/', StringSplitOptions.TrimEntries).Select((one, j) => (one, j)))
        {
            var parts = one.Split('×', StringSplitOptions.TrimEntries);
            var service =
                known.FirstOrDefault(s => s.Title == parts[0])
                ?? throw new FormatException($"No service “{parts[0]}”.");
            yield return new(
                $"l{index}{j}",
                role,
                role == LineRole.OneOf ? $"choice {index}" : null,
                service.Title,
                service.Detail,
                decimal.Parse(parts.ElementAtOrDefault(1) ?? "1", CultureInfo.InvariantCulture),
                service.Unit,
                service.UnitPrice,
                new Rate(service.TaxPartsPerMillion),
                j == 0
            )
            {
                Service = service.Id,
            };
        }
    }

    private static async Task OpenAsync(Desk desk, ProjectId id)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var version =
                ProposalState.Open(file.History)?.What.Version ?? throw new RefusedException("No proposal is out.");
            await act.RecordAsync(file, Actor.Client, new Happening.ProposalOpened(version));
        });
    }

    private static async Task ChooseAsync(Desk desk, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        var offer = Versions.OfferOf(await Contracting.OpenVersionAsync(desk, file));
        desk.Db.ChangeTracker.Clear();
        await Contracting.AcceptAsync(desk, id, Pricing.Suggested(offer));
    }

    private static async Task ChangeAsync(Desk desk, ProjectId id, string words)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var version =
                ProposalState.Open(file.History)?.What.Version ?? throw new RefusedException("No proposal is out.");
            await act.RecordAsync(
                file,
                Actor.Client,
                new Happening.ChangeAsked(version, await Notes.AddAsync(desk, id, NoteSort.Words, words))
            );
        });
    }

    /// <summary>Whoever signs next does; without a code, which nobody could read here.</summary>
    private static async Task SignAsync(Desk desk, SignCodes codes, ProjectId id, string name)
    {
        var file = await desk.OpenAsync(id);
        var contract = await Contracting.ShownAsync(desk, file) ?? throw new RefusedException("There is no contract.");
        var next = await Signers.NextAsync(desk, contract);
        desk.Db.ChangeTracker.Clear();
        await Contracting.SignAsync(
            desk,
            codes,
            id,
            next?.Person ?? file.Row.ClientId,
            new(next?.Name ?? name, contract.Hash, "192.0.2.7", "the demo"),
            ""
        );
    }

    private static async Task PayAsync(Desk desk, ProjectId id)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var (invoice, owed) = Owed.Open(file.History).FirstOrDefault();
            // what is not invoiced yet is paid ahead, by transfer
            var rest = AgreedPrice.Of(file.History) is { } price
                ? price.Agreed - Payments.Total(file.History, desk.Currency)
                : Money.Zero(desk.Currency);
            var (id_, amount) = invoice.Fact is null ? ((InvoiceId?)null, rest) : (invoice.What.Invoice, owed);
            await Checkout.BookAsync(act, file, id_, amount, PaymentMeans.Transfer, null, Actor.Client, desk.Now);
        });
    }

    private static async Task TaskAsync(Desk desk, ProjectId id, string title)
    {
        await desk.ActAsync(async act =>
        {
            var tasks = await desk.Db.Tasks.Where(t => t.ProjectId == id && t.DoneAt == null).ToListAsync();
            var done = title.Length == 0 ? tasks : [.. tasks.Where(t => t.Title == title)];
            foreach (var task in done)
                task.DoneAt = desk.Now;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(id),
                Actor.Owner,
                [.. done.Select(task => new Happening.TaskDone(task.Id))]
            );
        });
    }

    private static async Task NoteAsync(Desk desk, ProjectId id, string text)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            await act.RecordAsync(
                file,
                Actor.Owner,
                new Happening.NoteWritten(await Notes.AddAsync(desk, id, NoteSort.Note, text))
            );
        });
    }

    private static async Task ReleaseAsync(Desk desk, ProjectId id)
    {
        var held = await desk
            .Db.Letters.AsNoTracking()
            .Where(l => l.ProjectId == id && l.State == LetterState.Held)
            .Select(l => l.Id)
            .ToListAsync();
        foreach (var letter in held)
            await LettersOut.ReleaseAsync(desk, letter, null, null);
    }

    private static Task SayAsync(Desk desk, ProjectId id, HappenedSort sort, string words) =>
        Happened.RecordAsync(desk, id, new(sort, Words: words.Length > 0 ? words : null), "192.0.2.1", "the demo");
}
