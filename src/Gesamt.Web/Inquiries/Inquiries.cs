using System.Security.Cryptography;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Gesamt.Web.Inquiries;

/// <summary>An inquiry comes in and becomes a client and a project at Lead.</summary>
public static class Inquiry
{
    /// <summary>Keeps the answers with their questions and the source. A known address never joins projects by itself: each inquiry has a client of its own until the owner says otherwise.</summary>
    /// <exception cref="InvalidException">A field is missing or not as asked.</exception>
    public static async Task<ProjectId> ReceiveAsync(Desk desk, FormRow form, IReadOnlyDictionary<string, string> given)
    {
        var fields = StoreJson.Read<List<FormField>>(form.Fields);
        var answers = FormCheck.Read(fields, given);
        var fills = fields.Where(field => field.Fills is not null)
            .Join(answers, field => field.Key, answer => answer.Key, (field, answer) => (field.Fills, answer.Text))
            .ToLookup(pair => pair.Fills!, pair => pair.Text);
        var kind = await desk.Db.Kinds.AsNoTracking().SingleAsync(k => k.Id == form.KindId);

        await using var transaction = await desk.BeginAsync();
        var person = new PersonRow
        {
            Name = fills["name"].FirstOrDefault() ?? fills["mail"].First(),
            Organisation = fills["organisation"].FirstOrDefault(),
            Mail = fills["mail"].FirstOrDefault()?.ToLowerInvariant(),
            Phone = fills["phone"].FirstOrDefault(),
        };
        desk.Db.People.Add(person);
        await desk.Db.SaveChangesAsync();
        var project = new ProjectRow
        {
            KindId = kind.Id,
            ClientId = person.Id,
            Title = fills["title"].FirstOrDefault() ?? $"{kind.Name} for {person.Organisation ?? person.Name}",
            Source = fills["source"].FirstOrDefault(),
            Code = NewCode(),
            Rules = kind.Rules,
            Summary = answers.FirstOrDefault(answer => fields.Single(field => field.Key == answer.Key).Sort == FieldSort.LongText)?.Text,
        };
        desk.Db.Projects.Add(project);
        await desk.Db.SaveChangesAsync();
        var kept = new AnswersRow { ProjectId = project.Id, Form = form.Title, Items = StoreJson.Write(answers), At = desk.Now };
        desk.Db.Answers.Add(kept);
        await desk.Db.SaveChangesAsync();

        var file = await desk.OpenAsync(project.Id);
        await desk.RecordAsync(file, Actor.Client, [new Happening.InquiryCame(kept.Id), .. Known(file.Case.Kind, fills)]);
        await desk.CommitAsync(transaction);
        return project.Id;
    }

    /// <summary>Random and unguessable, in letters that survive being read aloud.</summary>
    public static string NewCode() => RandomNumberGenerator.GetString("abcdefghjkmnpqrstuvwxyz23456789", 10);

    private static IEnumerable<Happening> Known(KindRules kind, ILookup<string, string> fills)
    {
        foreach (var detail in kind.Demands.Where(fills.Contains)) yield return new Happening.DetailKnown(detail);
        if (fills["date"].FirstOrDefault() is { } date && LocalDatePattern.Iso.Parse(date) is { Success: true, Value: var day })
            yield return new Happening.DateSet(kind.MainDate, day, null);
    }
}
