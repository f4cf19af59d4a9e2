using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Reminders of payments: what they say, and when they ask first. Each has a studio of its own, since weeks go by.</summary>
public sealed class ReminderTests
{
    [Fact]
    public async Task A_reminder_names_what_is_open_with_its_reference_and_asks_first_once_they_say_it_is_paid()
    {
        await using var studio = new EmptyStudio();
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "remind@lanternhouse.example");
        await studio.SignedAsync(client, page);
        await studio.TickAsync();
        var invoice = await studio.LookAsync(db =>
            db.Invoices.AsNoTracking().SingleAsync(i => i.ProjectId == new ProjectId(project))
        );
        // a part of it came: the rest is asked for
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Paid",
                        amount = "656.80",
                        means = "Transfer",
                        invoice = invoice.Id.Value,
                    }
                )
            ).IsSuccessStatusCode
        );
        await DayByDayAsync(studio, invoice.Due.PlusDays(2));
        var sent = await LettersAsync(studio, project);
        var late = Assert.Single(sent, letter => letter.Template == "payment-late");
        Assert.Equal(LetterState.Sent, late.State);
        foreach (
            var words in new[]
            {
                invoice.Number,
                "2 000.00",
                Core.Amounts.CreditorReference.Written(Core.Amounts.CreditorReference.Of(invoice.Number)),
                "By transfer to IE",
                "By card or from your account",
            }
        )
            Assert.Contains(words, late.Body.Replace('\u202F', ' ').Replace('\u00A0', ' '));

        await client.TokenAsync($"{page}/api");
        Assert.True((await client.PostAsync($"{page}/api/invoices/{invoice.PublicId}/paid")).IsSuccessStatusCode);
        await DayByDayAsync(studio, invoice.Due.PlusDays(5));
        var next = (await LettersAsync(studio, project)).Where(letter => letter.Template == "payment-late").ToList();
        Assert.Equal([LetterState.Sent, LetterState.Held], next.Select(letter => letter.State));
    }

    private static async Task DayByDayAsync(Studio studio, LocalDate until)
    {
        for (; ; )
        {
            var today = await studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Today));
            if (today >= until)
                return;
            var next = await studio.LookAsync(
                (Hosting.Desk desk) => Task.FromResult(desk.Calendar.At(today.PlusDays(1) + new LocalTime(12, 0)))
            );
            await studio.WaitUntilAsync(next);
            await studio.TickAsync();
            await studio.WaitUntilAsync(next + Duration.FromMinutes(1));
            await studio.TickAsync();
        }
    }

    private static Task<List<LetterRow>> LettersAsync(Studio studio, long project) =>
        studio.LookAsync(db =>
            db.Letters.AsNoTracking().Where(l => l.ProjectId == new ProjectId(project)).OrderBy(l => l.Id).ToListAsync()
        );
}
