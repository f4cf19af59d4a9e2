using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.SignIn;
using Gesamt.Web.Templates;
using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace Gesamt.Web.Demo;

/// <summary>Reads the demo's studio and its people from their files.</summary>
public static class DemoFiles
{
    private sealed record StudioFile(
        string Name,
        string Owner,
        string Mail,
        string Zone,
        string Currency,
        string Brand,
        string Address,
        string TaxNumber,
        string Iban,
        string Signature,
        LocalTime SendFrom,
        LocalTime SendUntil,
        string Password,
        PersonFile[] People
    );

    private sealed record PersonFile(
        string Name,
        PersonSort Sort,
        string? Organisation,
        string? Mail,
        string? Phone,
        string Notes
    );

    /// <summary>Lays the studio of a folder of readable files, with its kinds and what they bundle.</summary>
    /// <param name="usual">The folder of what is usual, for whatever the demo has no words of its own.</param>
    public static async Task LoadAsync(GesamtDb db, IPasswordHasher<StudioRow> hasher, string folder, string usual)
    {
        var file = StoreJson.Read<StudioFile>(await File.ReadAllTextAsync(Path.Combine(folder, "studio.json")));
        var studio = new StudioRow
        {
            Name = file.Name,
            Owner = file.Owner,
            Mail = file.Mail,
            Zone = file.Zone,
            Currency = file.Currency,
            Brand = file.Brand,
            Address = file.Address,
            TaxNumber = file.TaxNumber,
            Iban = file.Iban,
            Signature = file.Signature,
            SendFrom = file.SendFrom,
            SendUntil = file.SendUntil,
            SecurityStamp = SignInEndpoints.NewStamp(),
            LateTerms = StoreJson.Write<LateTerms>(new LateTerms.PerMonth(Rate.Percent(1))),
        };
        studio.PasswordHash = hasher.HashPassword(studio, file.Password);
        studio.OpenHours = StoreJson.Write(await KindFiles.OpenHoursAsync(folder, usual));
        db.Studio.Add(studio);
        db.People.AddRange(
            file.People.Select(p => new PersonRow
            {
                Name = p.Name,
                Sort = p.Sort,
                Organisation = p.Organisation,
                Mail = p.Mail,
                Phone = p.Phone,
                Notes = p.Notes,
            })
        );
        await KindFiles.LoadAsync(db, folder, usual);
    }
}
