using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Web.Recurring;

/// <summary>The invoice that is being written comes again and again.</summary>
/// <param name="First">The day of the first, today or later.</param>
/// <param name="Until">The last day on which one can be; null for no such day.</param>
/// <param name="Count">How many there are; null for no such number.</param>
public sealed record BeginRecurringDto(int Edition, Every Every, LocalDate First, LocalDate? Until, int? Count);

/// <summary>What is kept of the invoice that is being written for those ahead.</summary>
public sealed record ChangeRecurringDto(int Edition);

/// <summary>An invoice that comes again.</summary>
/// <param name="Words">“€ 120.00 every month, until 12 March”.</param>
/// <param name="Next">Its next day in words.</param>
public sealed record RecurringDto(long Id, string Words, string Next);

/// <summary>What a client keeps to be charged.</summary>
/// <param name="Words">“card ending in 4000”.</param>
/// <param name="Since">The day of the consent.</param>
public sealed record ChargedMeansDto(string Words, string Consent, string Since);
