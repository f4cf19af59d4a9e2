using Gesamt.Core.Projects;
using Gesamt.Core.Waiting;

namespace Gesamt.Core.Tests.Waiting;

/// <summary>The letters that remind of an invoice.</summary>
public sealed class ReminderTests
{
    private static Step Step(string key, int days, params StopRule[] stops) =>
        new(
            key,
            new Timing(Cause.InvoiceDue, Span.Days(days)),
            new StepAction.Letter(key),
            StepMode.ByItself,
            World.Stops(stops)
        );

    [Fact]
    public void Reminders_after_its_day_are_counted_for_each_invoice()
    {
        var run = new Run(
            new RunId(1),
            new Routine(
                "money",
                "Money",
                Cause.InquiryCame,
                [Step("before", -3, StopRule.Paid), Step("late", 1, StopRule.Paid), Step("told", 2)]
            )
        );
        Happening Issued(long invoice, int day) =>
            new Happening.InvoiceIssued(new InvoiceId(invoice), World.Eur(100), new LocalDate(2027, 2, day));
        Happening Done(string step, int occurrence, long letter) =>
            new Happening.StepDone(new(new RunId(1), step, occurrence), new LetterId(letter));
        var reminded = Reminders.OfInvoices(
            World.Case(
                KindRules.Default,
                [run],
                ("2027-01-04 09:00", World.Inquiry),
                ("2027-01-20 09:00", Issued(7, 1)),
                ("2027-01-21 09:00", Issued(9, 20)),
                ("2027-01-29 09:00", Done("before", 0, 1)),
                ("2027-02-02 09:00", Done("late", 0, 2)),
                // what nothing ends reminds of nothing
                ("2027-02-03 09:00", Done("told", 0, 3)),
                ("2027-02-09 09:00", Done("late", 0, 4)),
                ("2027-02-17 09:00", Done("before", 1, 5))
            )
        );
        Assert.Equal([World.At("2027-02-02 09:00"), World.At("2027-02-09 09:00")], reminded[new InvoiceId(7)]);
        Assert.Empty(reminded[new InvoiceId(9)]);
    }
}
