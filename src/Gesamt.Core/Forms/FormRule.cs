using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.People;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Forms;

/// <summary>Which fields of a form are shown, and whether its answers are as asked.</summary>
public static class FormRule
{
    public const int ShortLength = 200,
        LongLength = 5_000,
        MostFiles = 10;

    /// <summary>The fields a visitor sees with these answers. A field that hangs on a hidden one is hidden with it.</summary>
    public static ImmutableArray<FormField> Shown(
        IReadOnlyList<FormField> fields,
        IReadOnlyDictionary<string, string> given
    )
    {
        var shown = ImmutableArray.CreateBuilder<FormField>();
        foreach (var field in fields)
            if (
                field.ShownIf is not { } condition
                || shown.Any(above => above.Key == condition.Field)
                    && Lines(given.GetValueOrDefault(condition.Field, "")).Any(condition.Is.Contains)
            )
                shown.Add(field);
        return shown.ToImmutable();
    }

    /// <summary>Answers in the order of the form, trimmed, and what is wrong; answers to fields that are not shown are left out.</summary>
    public static (ImmutableArray<Answer> Answers, ImmutableArray<FieldMistake> Mistakes) Read(
        IReadOnlyList<FormField> fields,
        IReadOnlyDictionary<string, string> given
    )
    {
        var mistakes = given
            .Keys.Where(key => fields.All(field => field.Key != key))
            .Select(key => new FieldMistake(key, "This form has no such field."))
            .ToList();
        List<Answer> answers = [];
        foreach (var field in Shown(fields, given).Where(field => field.Sort != FieldSort.Heading))
        {
            var text = Plain(field, given.GetValueOrDefault(field.Key) ?? "");
            if (text.Length == 0)
            {
                if (field.Required)
                    mistakes.Add(
                        new(
                            field.Key,
                            field.Sort == FieldSort.Consent
                                ? "Please tick this to send the form."
                                : (
                                    field.Label.TrimEnd().EndsWith('?')
                                        ? "This question is to be answered."
                                        : $"{field.Label.TrimEnd('.')} is needed."
                                )
                        )
                    );
                continue;
            }
            if (MistakeIn(field, text) is { } mistake)
                mistakes.Add(new(field.Key, mistake));
            else
                answers.Add(new(field.Key, field.Label, text, Sizes.Understood(field, text)));
        }
        return ([.. answers], [.. mistakes]);
    }

    /// <summary>What was typed without what nobody can type: one line stays one line, and no control characters.</summary>
    private static string Plain(FormField field, string text) =>
        field.Sort is FieldSort.LongText or FieldSort.Address or FieldSort.AnyOf or FieldSort.File
            ? Typed.Lines(text)
            : Typed.OneLine(text);

    /// <summary>What is wrong with a text as the answer of a field; null when nothing is.</summary>
    public static string? MistakeIn(FormField field, string text)
    {
        var longest =
            field.Sort is FieldSort.LongText or FieldSort.AnyOf or FieldSort.File ? LongLength
            : field.Sort == FieldSort.Address ? 500
            : field.Fills is "name" ? Typed.Most
            : ShortLength;
        if (text.Length > longest)
            return $"At most {longest} characters, these are {text.Length}.";
        return field.Sort switch
        {
            FieldSort.OneOf when field.Options?.Contains(text) != true => Allowed(field),
            FieldSort.AnyOf when !Lines(text).All(line => field.Options?.Contains(line) == true) => Allowed(field),
            FieldSort.Number when Sizes.Number(text, field.Unit) is null =>
                $"A number{(field.Unit is { Length: > 0 } unit ? $" ({unit})" : "")}, such as 12.5, “about 24” or “6 x 4”.{Sizes.Doubt(text)}",
            FieldSort.Amount when Sizes.Amounts(text) is null =>
                $"An amount such as 1200, or a range such as 1200-2000.{Sizes.Doubt(text)}",
            FieldSort.Date when Dates.Read(text) is null => Dates.Allowed,
            FieldSort.Mail when !MailAddress.IsValid(text) => MailAddress.Allowed,
            FieldSort.Phone when text.Count(char.IsAsciiDigit) < 5 => "A phone number with at least five digits.",
            FieldSort.File when Lines(text).Count() > MostFiles => $"At most {MostFiles} files.",
            FieldSort.Consent when text != "yes" => "Please tick this to send the form.",
            _ => null,
        };
    }

    /// <summary>Mistakes in a form as its owner makes it.</summary>
    /// <param name="inquiry">Whether strangers fill it in, who must be able to be answered.</param>
    /// <param name="checklist">Whether the owner answers it, so that answers can make tasks.</param>
    public static ImmutableArray<FieldMistake> MistakesIn(
        IReadOnlyList<FormField> fields,
        bool inquiry = true,
        bool checklist = false
    )
    {
        List<FieldMistake> mistakes = [];
        for (var i = 0; i < fields.Count; i++)
        {
            var (field, at) = (fields[i], $"fields[{i}]");
            if (field.Label.Trim().Length is 0 or > ShortLength)
                mistakes.Add(new($"{at}.label", $"A question of 1 to {ShortLength} characters is needed."));
            if (field.Key.Length is 0 or > 40)
                mistakes.Add(new($"{at}.key", "A key of 1 to 40 characters is needed."));
            if (fields.Take(i).Any(above => above.Key == field.Key))
                mistakes.Add(new($"{at}.key", "Two fields have the same key."));
            if (
                field.HasOptions
                && (
                    field.Options is not { Length: >= 2 } options
                    || options.Distinct().Count() != options.Length
                    || options.Any(string.IsNullOrWhiteSpace)
                )
            )
                mistakes.Add(new($"{at}.options", "Give at least two choices, each once."));
            if (
                field.ShownIf is { } condition
                && !fields
                    .Take(i)
                    .Any(above => above.Key == condition.Field && condition.Is.Length > 0 && CanBe(above, condition.Is))
            )
                mistakes.Add(new($"{at}.shownIf", "A field is shown by a choice of a field above it."));
            if (field.Makes is { } makes && MistakeIn(field, makes, checklist) is { } mistake)
                mistakes.Add(new($"{at}.makes", mistake));
        }
        if (!inquiry)
        {
            if (fields.All(field => field.Sort == FieldSort.Heading))
                mistakes.Add(new("fields", "Ask at least one question."));
            return [.. mistakes];
        }
        if (!fields.Any(field => field.Fills is "mail" or "phone"))
            mistakes.Add(
                new("fields", "Ask for a way to reach people: a field that fills their mail address or phone.")
            );
        if (!fields.Any(field => field is { Fills: "name", ShownIf: null }))
            mistakes.Add(new("fields", "Ask for a name: a field that fills it and is always shown."));
        return [.. mistakes];
    }

    private static string? MistakeIn(FormField field, AnswerTask makes, bool checklist) =>
        !checklist ? "Only the answers of a checklist make tasks."
        : field.Sort != FieldSort.OneOf || field.Options?.Contains(makes.Answer) != true
            ? "A task is made by one of the choices of the question."
        : makes.Title.Trim().Length is 0 or > ShortLength ? $"Say the task in 1 to {ShortLength} characters."
        : null;

    /// <summary>The choices or files of an answer.</summary>
    public static IEnumerable<string> Lines(string text) =>
        text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static bool CanBe(FormField field, ImmutableArray<string> values) =>
        field.Sort == FieldSort.Consent
            ? values is ["yes"]
            : field.HasOptions && values.All(value => field.Options!.Value.Contains(value));

    private static string Allowed(FormField field) =>
        $"Choose {(field.Sort == FieldSort.OneOf ? "one" : "any")} of: {string.Join(", ", field.Options ?? [])}.";
}
