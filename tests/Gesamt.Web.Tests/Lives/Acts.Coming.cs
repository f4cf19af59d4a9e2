using System.Net;
using System.Text;
using System.Text.Json;
using Gesamt.Formats.Mail;

namespace Gesamt.Web.Tests.Lives;

public static partial class Acts
{
    private static readonly TimeSpan Poll = TimeSpan.FromMilliseconds(20),
        LongestImport = TimeSpan.FromMinutes(2);

    /// <summary>A table comes in with letters and files beside it; now and then it is taken back at once, or later.</summary>
    private static async Task ComeAsync(Life life, Random random)
    {
        if (await ImportAsync(life, random) is not { } id)
            return;
        foreach (var path in (string[])["box.mbox", "0412 Quill/plan.txt", "Ada Quill/a.txt", "nobody/b.txt", "x.exe"])
            await life.OwnerAsync(
                "POST",
                $"/api/imports/{id}/beside?path={Uri.EscapeDataString(path)}",
                Bytes(path == "box.mbox" ? Box(random) : Encoding.UTF8.GetBytes($"{path} {random.Next()}"))
            );
        if (random.Next(4) == 0)
            await life.OwnerAsync("DELETE", $"/api/imports/{id}/beside");
        if (random.Next(5) == 0)
            return;
        var matching = (await life.LookAsync(life.Owner, $"/api/imports/{id}"))!.Value.GetProperty("matching");
        var (status, body) = await life.OwnerAsync("POST", $"/api/imports/{id}/run", matching);
        if (status != HttpStatusCode.NoContent)
            throw new LifeException($"Taking over table {id} answers {status}: {body}");
        if (await DoneAsync(life, id) is var state and not "Done")
            throw new LifeException($"Table {id} is {state} after it was taken over.");
        if (random.Next(2) == 0)
            await UndoAsync(life, id);
    }

    private static async Task<int?> ImportAsync(Life life, Random random)
    {
        // one that was taken over before goes back, whatever became of its projects
        if (random.Next(4) == 0)
        {
            var before = (await life.LookAsync(life.Owner, "/api/imports"))!
                .Value.EnumerateArray()
                .FirstOrDefault(one => one.GetProperty("state").GetString() == "Done");
            if (before.ValueKind == JsonValueKind.Object)
                await UndoAsync(life, before.GetProperty("id").GetInt32());
            return null;
        }
        var (status, body) = await life.OwnerAsync(
            "POST",
            "/api/imports?name=kept.csv",
            Bytes(
                Encoding.UTF8.GetBytes(
                    $"Number,Name,Mail,Project,Inquired,Status\n0412,Ada Quill,ada{random.Next(3)}@quill.example,Quill sign,2024-02-0{random.Next(1, 9)},done\n413,Ada Quill,ada@quill.example,Quill door,2024-05-01,open\n,,nobody@quill.example,x,2024-05-01,open\n"
                )
            )
        );
        return status == HttpStatusCode.OK ? JsonDocument.Parse(body).RootElement.GetProperty("id").GetInt32() : null;
    }

    private static byte[] Box(Random random) =>
        Mbox.Write(
            Enumerable
                .Range(0, random.Next(1, 5))
                .Select(i => new StoredMessage(
                    "ada@quill.example",
                    Instant.FromUtc(2024, 3, 1 + i, 9, 0),
                    Encoding.UTF8.GetBytes(
                        $"From: {Operations.Pick(["ada@quill.example", "me@before.example", "odd"], random)}\r\nTo: {Operations.Pick(["ada@quill.example", "me@before.example", ""], random)}\r\nSubject: {Operations.Pick(["0412", "Quill door", "hello", Operations.Pick(Operations.OddWords, random).ReplaceLineEndings(" ")], random)}\r\nDate: Fri, 1 Mar 2024 09:00:00 +0000\r\nMessage-ID: <{random.Next()}@came.example>\r\n\r\nwords\r\n"
                    )
                ))
        );

    private static async Task<string?> DoneAsync(Life life, int id)
    {
        using var patience = new CancellationTokenSource(LongestImport);
        while (true)
        {
            var state = (await life.LookAsync(life.Owner, $"/api/imports/{id}"))!
                .Value.GetProperty("state")
                .GetString();
            if (state != "Running")
                return state;
            await Task.Delay(Poll, patience.Token);
        }
    }

    private static async Task UndoAsync(Life life, int id)
    {
        var (status, body) = await life.OwnerAsync("POST", $"/api/imports/{id}/undo");
        if (status != HttpStatusCode.OK)
            throw new LifeException($"Taking table {id} back answers {status}: {body}");
    }
}
