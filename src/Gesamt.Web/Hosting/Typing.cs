using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using NodaTime.Text;

namespace Gesamt.Web.Hosting;

/// <summary>What somebody types into a field, as it is read.</summary>
/// <param name="Value">As the API takes it: a date or a time of ISO 8601; null where it does not read.</param>
/// <param name="Words">“Fri 12 Mar, in 46 days”; else what is allowed.</param>
public sealed record TypedDto(string? Value, string Words);

/// <summary>A form, and what is answered of it so far, by the fields' keys.</summary>
public sealed record AnsweredDto(FormField[] Fields, Dictionary<string, string> Answers);

/// <summary>Days, times and amounts are read by one rule wherever they are typed, and which questions a form shows with its answers: on the owner's pages and on the clients'.</summary>
public static class Typing
{
    private const decimal Most = 1_000_000_000;

    /// <summary>Open to anybody, as the forms are; it reads no stored thing but the studio's clock.</summary>
    public static RouteGroupBuilder MapTyping(this RouteGroupBuilder open)
    {
        open.MapGet("/day", (string text, Lean? lean, Desk desk) => Day(desk, text, lean ?? Lean.Ahead));
        open.MapGet("/time", (string text) => Time(text));
        open.MapGet("/amount", (string text, Desk desk) => Amount(desk, text));
        open.MapGet("/size", (string text, string? unit) => Answer(FieldSort.Number, text, unit));
        open.MapGet("/range", (string text) => Answer(FieldSort.Amount, text, null));
        open.MapPost(
            "/shown",
            (AnsweredDto given) => FormRule.Shown(given.Fields, given.Answers).Select(field => field.Key)
        );
        return open;
    }

    private static TypedDto Day(Desk desk, string text, Lean lean) =>
        TypedDate.Day(text, desk.Today, desk.Calendar, lean) is { } day
            ? new(
                LocalDatePattern.Iso.Format(day),
                $"{DateWords.Short(day, desk.Today)}, {DateWords.Distance(day, desk.Today)}"
            )
            : new(null, TypedDate.AllowedDay);

    private static TypedDto Time(string text) =>
        TypedDate.Time(text) is { } time
            ? new(LocalTimePattern.ExtendedIso.Format(time), DateWords.Time(time))
            : new(null, TypedDate.AllowedTime);

    // an answer stays as it was written; what it is taken for stands beside it
    private static TypedDto Answer(FieldSort sort, string text, string? unit)
    {
        var field = new FormField("", sort, "", false, null, unit);
        return FormRule.MistakeIn(field, text) is { } mistake
            ? new(null, mistake)
            : new(text, Sizes.Understood(field, text) is { } read ? $"read as {read}" : "");
    }

    private static TypedDto Amount(Desk desk, string text) =>
        NumberReading.Amount(text, currency: desk.Currency) is { } major and >= -Most and <= Most
            ? new(NumberText.Number(major), MoneyText.Of(Money.Of(major, desk.Currency)))
            : new(null, $"Write an amount, such as {NumberText.Number(1200.5m)}0.{NumberText.Doubt(text)}");
}
