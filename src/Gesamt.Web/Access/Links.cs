using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using Gesamt.Core;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Access;

/// <summary>Links that open one project for one person. The token is an HMAC over the link's public name and generation, with a key kept outside the database.</summary>
public sealed class Links(KeyRing ring, Doorplate plate)
{
    /// <summary>Said of a letter whose link would open nothing.</summary>
    public const string Closed =
        "Their page is closed, so the link in it would open nothing. Open the page again, or take the link out.";

    /// <summary>The link of a person to a project, made when it is first needed.</summary>
    public static async Task<LinkRow> OfAsync(GesamtDb db, ProjectId project, PersonId person)
    {
        var link = await db.Links.SingleOrDefaultAsync(l => l.ProjectId == project && l.PersonId == person);
        if (link is not null)
            return link;
        link = new()
        {
            ProjectId = project,
            PersonId = person,
            PublicId = Codes.New() + Codes.New(),
            Generation = 1,
        };
        db.Links.Add(link);
        await db.SaveChangesAsync();
        return link;
    }

    /// <summary>The whole address with its token, as it is put into a letter at the moment it is handed over.</summary>
    public string AddressOf(LinkRow link) => $"{plate.Address}/p/{link.PublicId}/enter/{TokenOf(link)}";

    /// <summary>Whether a token opens a link: the right one, of its present generation, and not ended.</summary>
    public bool Opens(LinkRow link, string token) =>
        link.EndedAt is null
        && ring.LinksKey is not null
        && CryptographicOperations.FixedTimeEquals(
            Encoding.ASCII.GetBytes(token),
            Encoding.ASCII.GetBytes(TokenOf(link))
        );

    private string TokenOf(LinkRow link) =>
        Base64Url.EncodeToString(
            HMACSHA256.HashData(
                ring.LinksKey ?? throw new RefusedException(KeyRing.NoLinks),
                Encoding.UTF8.GetBytes($"{link.PublicId}:{link.Generation}")
            )
        );
}

/// <summary>Where a client reaches their page.</summary>
public sealed record AddressDto(string Address);
