using System.Net;
using System.Text;
using Gesamt.Core.Forms;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Inquiries;

/// <summary>A form as a page without any script: browsers that run none are sent here, and it sends all the same.</summary>
public static class PlainForm
{
    private const string Html = "text/html; charset=utf-8";

    public static void MapPlainForms(this RouteGroupBuilder forms)
    {
        forms
            .MapGet(
                "/{slug}/plain",
                async (string slug, string? campaign, Desk desk, FormTokens tokens) =>
                    Results.Content(
                        Page(
                            InquiryEndpoints.Public(
                                desk,
                                await InquiryEndpoints.OpenAsync(desk, slug),
                                tokens.New(slug)
                            ),
                            slug,
                            new Dictionary<string, string>(),
                            [],
                            campaign: campaign ?? ""
                        ),
                        Html
                    )
            )
            .ExcludeFromDescription();

        forms
            .MapPost(
                "/{slug}/plain",
                async (
                    string slug,
                    HttpContext http,
                    Desk desk,
                    FormTokens tokens,
                    Uploads uploads,
                    CancellationToken stop
                ) =>
                {
                    var form = await InquiryEndpoints.OpenAsync(desk, slug);
                    IFormCollection sent;
                    try
                    {
                        sent = await http.Request.ReadFormAsync(stop);
                    }
                    catch (Exception e)
                        when (e is InvalidDataException or BadHttpRequestException
                            || e is IOException && HouseTrouble.Of(e) is null && !stop.IsCancellationRequested
                        )
                    {
                        return Results.Content(
                            Page(
                                InquiryEndpoints.Public(desk, form, tokens.New(slug)),
                                slug,
                                new Dictionary<string, string>(),
                                [],
                                "What was sent could not be read, or it was too much. Please fill it in again, with smaller files."
                            ),
                            Html,
                            statusCode: 400
                        );
                    }
                    var given = sent.Where(pair => pair.Key.StartsWith("f-", StringComparison.Ordinal))
                        .ToDictionary(
                            pair => pair.Key[2..],
                            pair => string.Join('\n', pair.Value.OfType<string>().Where(text => text.Length > 0))
                        );
                    var key = tokens.KeyOf(slug, sent["token"]);
                    if (form.Closed || key is null)
                        return Again("This form was opened too long ago. It is fresh now: please send it again.", []);
                    var request = $"/forms/{slug}/plain#{key}";
                    if (await desk.Db.Requests.AnyAsync(r => r.Key == request, stop))
                        return Results.Content(Thanks(desk, await InquiryEndpoints.ThanksAsync(desk, form)), Html);
                    try
                    {
                        foreach (var file in sent.Files.Where(file => file.Length > 0))
                        {
                            await using var content = file.OpenReadStream();
                            var upload = await uploads.KeepAsync(
                                desk,
                                form,
                                file.FileName,
                                content,
                                file.Length,
                                http.VisitorAddress(),
                                stop
                            );
                            given[file.Name[2..]] =
                                $"{given.GetValueOrDefault(file.Name[2..], "")}\n{upload.PublicId}".Trim();
                        }
                        // saved with the inquiry itself, so that it is received once however often it is sent
                        desk.Db.Requests.Add(
                            new()
                            {
                                Key = request,
                                At = desk.Now,
                                Status = 200,
                            }
                        );
                        if (sent["website"] == "")
                            await Inquiry.ReceiveAsync(desk, form, given, sent["campaign"]);
                    }
                    catch (InvalidException invalid)
                    {
                        desk.Db.ChangeTracker.Clear();
                        return Again("Not sent yet: please look at the marked questions.", invalid.Errors);
                    }
                    catch (Exception e) when (HouseTrouble.Of(e) is not null)
                    {
                        desk.Db.ChangeTracker.Clear();
                        return Again(
                            $"Not sent yet: it cannot be received at the moment. What you typed still stands here. Try again later, or write to {desk.Studio.Mail}.",
                            [],
                            503
                        );
                    }
                    return Results.Content(Thanks(desk, await InquiryEndpoints.ThanksAsync(desk, form)), Html);

                    IResult Again(string words, Dictionary<string, string[]> errors, int status = 400) =>
                        Results.Content(
                            Page(
                                InquiryEndpoints.Public(desk, form, tokens.New(slug)),
                                slug,
                                given,
                                errors,
                                words,
                                sent["campaign"].ToString()
                            ),
                            Html,
                            statusCode: status
                        );
                }
            )
            .LimitCalls(InquiryEndpoints.RateLimit)
            .DisableAntiforgery()
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .ExcludeFromDescription();
    }

    private static string Thanks(Desk desk, ThanksDto thanks)
    {
        var page = new StringBuilder();
        page.Append($"<h1>{E(thanks.Words)}</h1><p>{E(thanks.Next)}</p>");
        if (thanks.GoTo is { } next)
            page.Append($"<p><a href=\"{E(next)}\">Go on</a></p>");
        return Frame(desk.Studio.Name, thanks.Words, page.ToString());
    }

    private static string Page(
        PublicFormDto form,
        string slug,
        IReadOnlyDictionary<string, string> given,
        Dictionary<string, string[]> errors,
        string? words = null,
        string campaign = ""
    )
    {
        var page = new StringBuilder($"<h1>{E(form.Title)}</h1><p>{E(form.Intro)}</p>");
        if (form.Closed)
            return Frame(
                form.Studio,
                form.Title,
                page.Append($"<p>This form is closed at the moment. Write to {E(form.Mail)} instead.</p>").ToString()
            );
        if (words is not null)
            page.Append($"<p role=\"alert\"><strong>{E(words)}</strong></p>");
        page.Append(
            $"<form method=\"post\" action=\"/forms/{E(slug)}/plain\" enctype=\"multipart/form-data\"><input type=\"hidden\" name=\"token\" value=\"{E(form.Token)}\"><input type=\"hidden\" name=\"campaign\" value=\"{E(campaign)}\">"
        );
        foreach (var field in form.Fields)
            Field(
                page,
                field,
                form.Fields,
                given.GetValueOrDefault(field.Key, ""),
                errors.GetValueOrDefault(field.Key)
            );
        page.Append(
            "<p hidden><label>Leave this empty <input name=\"website\" autocomplete=\"off\"></label></p><p><button type=\"submit\">Send the inquiry</button></p></form>"
        );
        return Frame(form.Studio, form.Title, page.ToString());
    }

    private static void Field(
        StringBuilder page,
        FormField field,
        IReadOnlyList<FormField> all,
        string value,
        string[]? wrong
    )
    {
        if (field.Sort == FieldSort.Heading)
        {
            page.Append($"<h2>{E(field.Label)}</h2>");
            return;
        }
        var (id, name) = (E($"i-{field.Key}"), E($"f-{field.Key}"));
        var condition =
            field.ShownIf is { } shown && all.FirstOrDefault(one => one.Key == shown.Field) is { } above
                ? $", if “{above.Label}” is {string.Join(" or ", shown.Is)}"
                : "";
        var label =
            $"{field.Label}{(field.Unit is { } unit ? $" ({unit})" : "")}{condition}{(field.Required || condition.Length > 0 ? "" : ", if you like")}";
        var required = field.Required && field.ShownIf is null && field.Sort != FieldSort.AnyOf ? " required" : "";
        page.Append("<p>");
        if (field.Sort == FieldSort.Consent)
            page.Append(
                $"<label><input type=\"checkbox\" name=\"{name}\" value=\"yes\"{(value == "yes" ? " checked" : "")}{required}> {E(label)}</label>"
            );
        else if (field.Sort == FieldSort.AnyOf)
            page.Append($"{E(label)}")
                .AppendJoin(
                    "",
                    (field.Options ?? []).Select(option =>
                        $"<br><label><input type=\"checkbox\" name=\"{name}\" value=\"{E(option)}\"{(FormRule.Lines(value).Contains(option) ? " checked" : "")}> {E(option)}</label>"
                    )
                );
        else
            page.Append($"<label for=\"{id}\">{E(label)}</label><br>").Append(Input(field, id, name, value, required));
        if (field.Hint is { } hint)
            page.Append($"<br><small>{E(hint)}</small>");
        if (wrong is not null)
            page.Append($"<br><strong>{E(string.Join(" ", wrong))}</strong>");
        page.Append("</p>");
    }

    private static string Input(FormField field, string id, string name, string value, string required) =>
        field.Sort switch
        {
            FieldSort.LongText or FieldSort.Address =>
                $"<textarea id=\"{id}\" name=\"{name}\" rows=\"4\" cols=\"50\"{required}>{E(value)}</textarea>",
            FieldSort.OneOf =>
                $"<select id=\"{id}\" name=\"{name}\"{required}><option value=\"\">Choose</option>{string.Concat((field.Options ?? []).Select(option => $"<option{(option == value ? " selected" : "")}>{E(option)}</option>"))}</select>",
            FieldSort.File => $"<input id=\"{id}\" name=\"{name}\" type=\"file\" multiple{required}>",
            _ =>
                $"<input id=\"{id}\" name=\"{name}\" type=\"{Type(field.Sort)}\" size=\"40\" value=\"{E(value)}\"{required}>",
        };

    private static string Type(FieldSort sort) =>
        sort switch
        {
            FieldSort.Date => "date",
            FieldSort.Mail => "email",
            FieldSort.Phone => "tel",
            _ => "text",
        };

    private static string Frame(string studio, string title, string body) =>
        $"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{E(title)}, {E(studio)}</title></head><body><p><strong>{E(studio)}</strong></p>{body}</body></html>";

    private static string E(string text) => WebUtility.HtmlEncode(text);
}
