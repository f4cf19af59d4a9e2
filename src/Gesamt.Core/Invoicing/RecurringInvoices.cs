using Gesamt.Core.Facts;

namespace Gesamt.Core.Invoicing;

/// <summary>Invoices that come again.</summary>
public static class RecurringInvoices
{
    /// <summary>Those that go on: begun, and neither stopped nor run out.</summary>
    public static IEnumerable<RecurringId> Running(History history) =>
        history
            .Of<Happening.RecurringBegun>()
            .Select(begun => begun.What.Recurring)
            .Except(history.Of<Happening.RecurringStopped>().Select(stopped => stopped.What.Recurring));
}
