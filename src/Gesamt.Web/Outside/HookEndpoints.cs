using System.Security.Cryptography;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hooks;
using Gesamt.Web.Hosting;
using Gesamt.Web.Templates;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Outside;

/// <param name="Secret">By which its receiver knows the calls are the studio's.</param>
/// <param name="Failing">What the last call that was not taken met with.</param>
public sealed record HookDto(
    int Id,
    string Name,
    string Address,
    string Secret,
    HookEvent[] Events,
    bool Inside,
    bool Off,
    int Edition,
    int Taken,
    int Waiting,
    int GivenUp,
    string? Failing
);

/// <summary>A web hook as it is saved. Inside: it may reach an address in the house.</summary>
public sealed record SaveHookDto(string Name, string Address, HookEvent[] Events, bool Inside, bool Off, int Edition);

/// <summary>What a new key may do.</summary>
public sealed record NewApiKeyDto(string Name, bool MayRead, bool MayInquire);

/// <param name="Key">Shown once; only its hash is kept.</param>
public sealed record MadeApiKeyDto(int Id, string Key);

/// <summary>A key as it is listed; its secret is shown once.</summary>
public sealed record ApiKeyDto(
    int Id,
    string Name,
    string Begins,
    bool MayRead,
    bool MayInquire,
    string Made,
    string? Used
);

/// <summary>Web hooks and keys for other programs, as the owner keeps them.</summary>
public static class HookEndpoints
{
    public static void MapHooks(this RouteGroupBuilder api)
    {
        api.MapGet("/hooks", (Desk desk) => AllAsync(desk));
        api.MapPost("/hooks", async (SaveHookDto save, Desk desk) => await SaveAsync(desk, null, save));
        api.MapPut("/hooks/{id:int}", async (int id, SaveHookDto save, Desk desk) => await SaveAsync(desk, id, save));
        api.MapDelete(
            "/hooks/{id:int}",
            async (int id, Desk desk) =>
            {
                await desk.Db.Hooks.Where(h => h.Id == id).ExecuteDeleteAsync();
                await RoutineTrouble.RefreshAsync(desk);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/hooks/{id:int}/test",
            async (int id, Desk desk, HookCalls calls, CancellationToken stop) => await calls.TestAsync(desk, id, stop)
        );

        api.MapGet(
            "/keys",
            async (Desk desk) =>
                (await desk.Db.ApiKeys.AsNoTracking().Where(k => k.EndedAt == null).OrderBy(k => k.Id).ToListAsync())
                    .Select(k => new ApiKeyDto(
                        k.Id,
                        k.Name,
                        k.Begins,
                        k.MayRead,
                        k.MayInquire,
                        desk.Precisely(k.MadeAt),
                        k.UsedAt is { } used ? desk.Precisely(used) : null
                    ))
                    .ToList()
        );
        api.MapPost("/keys", MakeKeyAsync);
        api.MapDelete(
            "/keys/{id:int}",
            async (int id, Desk desk) =>
            {
                var now = desk.Now;
                await desk
                    .Db.ApiKeys.Where(k => k.Id == id)
                    .ExecuteUpdateAsync(set => set.SetProperty(k => k.EndedAt, now));
                return TypedResults.NoContent();
            }
        );
    }

    private static async Task<IReadOnlyList<HookDto>> AllAsync(Desk desk)
    {
        var rows = await desk.Db.Hooks.AsNoTracking().OrderBy(h => h.Name).ToListAsync();
        var counts = (
            await desk
                .Db.HookCalls.AsNoTracking()
                .GroupBy(c => new { c.HookId, c.State })
                .Select(g => new
                {
                    g.Key.HookId,
                    g.Key.State,
                    Count = g.Count(),
                })
                .ToListAsync()
        ).ToLookup(c => c.HookId);
        var failing = (
            await desk
                .Db.HookCalls.AsNoTracking()
                .Where(c => c.State != HookCallState.Taken && c.LastError != null)
                .OrderBy(c => c.Id)
                .Select(c => new { c.HookId, c.LastError })
                .ToListAsync()
        )
            .GroupBy(c => c.HookId)
            .ToDictionary(g => g.Key, g => g.Last().LastError);
        int Count(int hook, HookCallState state) => counts[hook].Where(c => c.State == state).Sum(c => c.Count);
        return
        [
            .. rows.Select(h => new HookDto(
                h.Id,
                h.Name,
                h.Address,
                h.Secret,
                StoreJson.Read<HookEvent[]>(h.Events),
                h.Inside,
                h.Off,
                h.Edition,
                Count(h.Id, HookCallState.Taken),
                Count(h.Id, HookCallState.Waiting),
                Count(h.Id, HookCallState.GivenUp),
                failing.GetValueOrDefault(h.Id)
            )),
        ];
    }

    /// <exception cref="InvalidException">The name is taken, or the address is none.</exception>
    private static async Task<IReadOnlyList<HookDto>> SaveAsync(Desk desk, int? id, SaveHookDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = id is null
                ? null
                : await desk.Db.Hooks.SingleOrDefaultAsync(h => h.Id == id) ?? throw new MissingException("web hook");
            if (row is not null && row.Edition != save.Edition)
                throw new StaleException(await AllAsync(desk));
            var (name, address) = (save.Name.Trim(), save.Address.Trim());
            List<(string, string)> errors = [];
            if (name.Length is 0 or > 60 || name.Contains('"', StringComparison.Ordinal))
                errors.Add(("name", "A name of 1 to 60 characters without quotation marks is needed."));
            if (await desk.Db.Hooks.AnyAsync(h => h.Name == name && h.Id != (id ?? 0)))
                errors.Add(("name", "Another web hook has this name."));
            if (
                !Uri.TryCreate(address, UriKind.Absolute, out var uri)
                || uri.Scheme is not ("https" or "http")
                || address.Length > 500
            )
                errors.Add(("address", "An address that begins with https://, of at most 500 characters."));
            else if (uri.Scheme == "http" && !save.Inside)
                errors.Add(("address", "Outside the studio's own network the address begins with https://."));
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            if (row is null)
                desk.Db.Hooks.Add(
                    row = new()
                    {
                        Name = name,
                        Address = address,
                        Secret = $"whsec_{Convert.ToBase64String(RandomNumberGenerator.GetBytes(32))}",
                    }
                );
            (row.Name, row.Address, row.Events, row.Inside, row.Off) = (
                name,
                address,
                StoreJson.Write(save.Events.Distinct().ToArray()),
                save.Inside,
                save.Off
            );
            row.Edition++;
            await desk.Db.SaveChangesAsync();
            await RoutineTrouble.RefreshAsync(desk);
        });
        return await AllAsync(desk);
    }

    private static async Task<MadeApiKeyDto> MakeKeyAsync(NewApiKeyDto make, Desk desk)
    {
        List<(string, string)> errors = [];
        if (make.Name.Trim().Length is 0 or > 60)
            errors.Add(("name", "A name of 1 to 60 characters is needed."));
        if (!make.MayRead && !make.MayInquire)
            errors.Add(("mayRead", "Say what the key is for: reading, new inquiries, or both."));
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        var key =
            $"gesamt_{RandomNumberGenerator.GetString("abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789", 40)}";
        var row = new ApiKeyRow
        {
            Name = make.Name.Trim(),
            Begins = key[..12],
            Hash = ApiKeys.HashOf(key),
            MayRead = make.MayRead,
            MayInquire = make.MayInquire,
            MadeAt = desk.Now,
        };
        desk.Db.ApiKeys.Add(row);
        await desk.Db.SaveChangesAsync();
        return new(row.Id, key);
    }
}
