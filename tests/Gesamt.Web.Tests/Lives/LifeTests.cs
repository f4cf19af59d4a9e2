using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using CsCheck;

namespace Gesamt.Web.Tests.Lives;

/// <summary>Studios lived at random, over the real server: after every act everything that must hold does. A life that fails is shortened to the shortest that still does.</summary>
/// <remarks>For a minute with a fresh seed in every run; longer by GESAMT_LIVE_MINUTES, which ./gesamt live sets. A seed that was printed is lived again by GESAMT_LIVE_SEED.</remarks>
public sealed class LifeTests(ITestOutputHelper output)
{
    private static readonly double Minutes = double.TryParse(
        Environment.GetEnvironmentVariable("GESAMT_LIVE_MINUTES"),
        CultureInfo.InvariantCulture,
        out var minutes
    )
        ? minutes
        : 1;
    private static readonly int LongestLife = Minutes > 1 ? 250 : 60;

    [Fact]
    public void Whatever_happens_in_a_studio_all_of_it_holds()
    {
        var (lives, acts, requests) = (0, 0, 0);
        var done = new Dictionary<string, int>();
        var facts = new Dictionary<string, int>();
        var watch = Stopwatch.StartNew();
        try
        {
            Gen.Select(Gen.Int[0, Acts.Count - 1], Gen.Int[0, 999_999], (what, how) => new Act(what, how))
                .Array[1, LongestLife]
                .Sample(
                    life =>
                    {
                        lives++;
                        LiveAsync(
                            life,
                            act =>
                            {
                                acts++;
                                done[Acts.NameOf(act.What)] = done.GetValueOrDefault(Acts.NameOf(act.What)) + 1;
                            },
                            facts,
                            ref requests
                        );
                    },
                    seed: Environment.GetEnvironmentVariable("GESAMT_LIVE_SEED"),
                    time: (int)(Minutes * 60),
                    threads: 1,
                    print: life => string.Join(" ", life)
                );
        }
        finally
        {
            var told = string.Create(
                CultureInfo.InvariantCulture,
                $"{lives} lives, {acts} acts, {requests} requests in {watch.Elapsed.TotalMinutes:0.0} minutes. Acts: {string.Join(", ", done.OrderByDescending(one => one.Value).Select(one => $"{one.Key} {one.Value}"))}. Facts: {string.Join(", ", facts.OrderByDescending(one => one.Value).Select(one => $"{one.Key} {one.Value}"))}"
            );
            output.WriteLine(told);
            if (Minutes > 1)
                Console.WriteLine(told);
        }
        Assert.True(acts > 0);
    }

    private static void LiveAsync(Act[] acts, Action<Act> doing, Dictionary<string, int> facts, ref int requests) =>
        requests += Task.Run(async () =>
            {
                await using var life = new Life(new LivedStudio());
                await life.BeginAsync();
                var checks = new Checks(life);
                foreach (var act in acts)
                {
                    doing(act);
                    try
                    {
                        await Acts.DoAsync(life, act);
                        await checks.HoldAsync();
                    }
                    catch (Exception e) when (e is not LifeException)
                    {
                        throw new LifeException($"{act}: {e}");
                    }
                    catch (LifeException e)
                    {
                        throw new LifeException(
                            $"{act}: {e.Message}{(life.Erased.Count > 0 ? $" (erased: {string.Join(", ", life.Erased)})" : "")}"
                        );
                    }
                }
                await checks.HoldAsync(last: true);
                await LeavesAndComesBackAsync(life);
                foreach (var (kind, times) in checks.Facts)
                    facts[kind] = facts.GetValueOrDefault(kind) + times;
                return life.Requests;
            })
            .GetAwaiter()
            .GetResult();

    /// <summary>Its archive, taken in by an empty studio, gives the same archive again, and all that is derived is the same.</summary>
    private static async Task LeavesAndComesBackAsync(Life life)
    {
        using var folder = new Folder();
        await life.Studio.TickAsync();
        var first = await ArchiveTests.MadeAsync(life.Studio, folder.Of("first.zip"));
        var standings = await ArchiveTests.StandingsAsync(life.Studio);
        await using var again = await ArchiveTests.TakenInAsync(folder, folder.Of("first.zip"), life.Now);
        var derived = await ArchiveTests.StandingsAsync(again);
        if (derived != standings)
            throw new LifeException(
                $"Come back from an archive it stands otherwise: {Difference(standings.Split('\n'), derived.Split('\n'))}"
            );
        var second = await ArchiveTests.MadeAsync(again, folder.Of("second.zip"));
        if (
            first.Entries.Except(second.Entries).Concat(second.Entries.Except(first.Entries)).FirstOrDefault() is
            { } one
        )
            throw new LifeException(
                $"Come back from an archive it makes another: {one.Name}: {Difference(Lines(folder.Of("first.zip"), one.Name), Lines(folder.Of("second.zip"), one.Name))}"
            );
    }

    private static string[] Lines(string archive, string name)
    {
        using var zip = ZipFile.OpenRead(archive);
        if (zip.GetEntry(name) is not { } entry)
            return [];
        using var reader = new StreamReader(entry.Open());
        return reader.ReadToEnd().Split('\n');
    }

    private static string Difference(string[] before, string[] after) =>
        string.Join("\n", before.Except(after).Take(3))
        + "\nis now\n"
        + string.Join("\n", after.Except(before).Take(3));
}
