using System.Globalization;
using System.Text.Json.Serialization;
using Gesamt.Formats.Mail;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Inquiries;

/// <summary>What a field of a form asks for.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<FieldSort>))]
public enum FieldSort { ShortText, LongText, OneOf, Number, Date, Mail, Phone, Consent }

/// <summary>A field of a form.</summary>
/// <param name="Fills">What of the record its answer fills: name, organisation, mail, phone, date, title, source, or a detail.</param>
/// <param name="Unit">Shown behind a number.</param>
public sealed record FormField(string Key, FieldSort Sort, string Label, bool Required, string? Hint, string? Unit, string[]? Options, string? Fills);

/// <summary>An answer with its question as it was asked.</summary>
public sealed record Answer(string Key, string Question, string Text);

/// <summary>Checks answers against the fields they answer.</summary>
public static class FormCheck
{
    private const int ShortLength = 200, LongLength = 5_000;

    /// <summary>The answers given, trimmed, in the order of the form.</summary>
    /// <exception cref="InvalidException">Names every field that is missing or not as asked.</exception>
    public static IReadOnlyList<Answer> Read(IReadOnlyList<FormField> fields, IReadOnlyDictionary<string, string> given)
    {
        List<(string, string)> errors = [];
        List<Answer> answers = [];
        foreach (var key in given.Keys.Where(key => fields.All(field => field.Key != key))) errors.Add((key, "This form has no such field."));
        foreach (var field in fields)
        {
            var text = given.GetValueOrDefault(field.Key, "").Trim();
            if (text.Length == 0)
            {
                if (field.Required) errors.Add((field.Key, field.Sort == FieldSort.Consent ? "Please tick this to send the form." : $"{field.Label} is needed."));
                continue;
            }
            if (Mistake(field, text) is { } mistake) errors.Add((field.Key, mistake));
            else answers.Add(new(field.Key, field.Label, text));
        }
        return errors.Count == 0 ? answers : throw new InvalidException([.. errors]);
    }

    private static string? Mistake(FormField field, string text)
    {
        var longest = field.Sort == FieldSort.LongText ? LongLength : ShortLength;
        if (text.Length > longest) return $"At most {longest} characters, these are {text.Length}.";
        return field.Sort switch
        {
            FieldSort.OneOf when field.Options?.Contains(text) != true => $"Choose one of: {string.Join(", ", field.Options ?? [])}.",
            FieldSort.Number when !decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number) || number < 0 => "A number, such as 12.5.",
            FieldSort.Date when !NodaTime.Text.LocalDatePattern.Iso.Parse(text).Success => "A date, such as 2027-03-12.",
            FieldSort.Mail when !OutgoingMail.IsAddress(text) => "A mail address, such as name@place.example.",
            FieldSort.Phone when text.Count(char.IsAsciiDigit) < 5 => "A phone number with at least five digits.",
            FieldSort.Consent when text != "yes" => "Please tick this to send the form.",
            _ => null,
        };
    }
}
