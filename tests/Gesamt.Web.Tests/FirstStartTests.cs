using System.Diagnostics;

namespace Gesamt.Web.Tests;

/// <summary>Setting up happens whole or not at all, and can be begun again after whatever went wrong.</summary>
[System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
public sealed class FirstStartTests
{
    private static bool IsOwned(string data) =>
        File.Exists(Path.Combine(data, "gesamt.db"))
        && Server.Read(data, "gesamt.db", "SELECT Owner FROM Studio") is ["Ida"];

    [Theory]
    [InlineData("Gesamt__OwnerPassword", "short", "Too short: 5 more characters.")]
    [InlineData("Gesamt__OwnerMail", "ida at studio", "mail address")]
    [InlineData("Gesamt__StudioName", "", "name")]
    public async Task What_is_not_allowed_is_said_in_a_sentence_and_the_next_start_begins_anew(
        string setting,
        string value,
        string said
    )
    {
        using var data = new Folder();
        using (var refused = Server.StartReal(data.Path, (setting, value)))
        {
            Assert.False(await refused.AnswersAsync());
            await refused.Process.WaitForExitAsync(TestContext.Current.CancellationToken);
            Assert.Equal(2, refused.Process.ExitCode);
            var words = await refused.Said;
            Assert.Contains(said, words);
            Assert.DoesNotContain("   at ", words); // no stack trace
        }
        Assert.False(File.Exists(data.Of("gesamt.db")));
        using var again = Server.StartReal(data.Path);
        Assert.True(await again.AnswersAsync());
        Assert.True(IsOwned(data.Path));
    }

    [Fact] // at whatever moment it is killed, the next start has a whole studio or asks again
    public async Task A_kill_in_the_first_start_leaves_nothing_half_made()
    {
        using var data = new Folder();
        var random = new Random(4711);
        for (var kill = 0; kill < 4; kill++)
        {
            using var dying = Server.StartReal(data.Path);
            var moment = Stopwatch.StartNew();
            var at = TimeSpan.FromMilliseconds(1_000 + 900 * kill + random.Next(600));
            while (moment.Elapsed < at && !dying.Process.HasExited)
                await Task.Yield();
            dying.Process.Kill();
            await dying.Process.WaitForExitAsync(TestContext.Current.CancellationToken);
            if (File.Exists(data.Of("gesamt.db")))
                Assert.True(IsOwned(data.Path), $"half a studio after kill {kill}");
        }
        using var whole = Server.StartReal(data.Path);
        Assert.True(await whole.AnswersAsync());
        Assert.True(IsOwned(data.Path));
        Assert.False(Directory.Exists(data.Of("setting-up")));
    }

    [Fact] // as an earlier release left it when it was killed
    public async Task An_empty_database_is_no_studio_and_is_set_up()
    {
        using var data = new Folder();
        File.WriteAllBytes(data.Of("gesamt.db"), []);
        using var server = Server.StartReal(data.Path);
        Assert.True(await server.AnswersAsync());
        Assert.True(IsOwned(data.Path));
    }

    [Fact]
    public async Task A_damaged_database_is_left_as_it_is_and_said()
    {
        using var data = new Folder();
        var bytes = System.Text.Encoding.ASCII.GetBytes(new string('x', 20_000));
        File.WriteAllBytes(data.Of("gesamt.db"), bytes);
        using var server = Server.StartReal(data.Path);
        Assert.False(await server.AnswersAsync());
        Assert.Contains("restore the newest backup", await server.Said);
        Assert.Equal(bytes, File.ReadAllBytes(data.Of("gesamt.db")));
    }

    [Fact]
    public async Task Everything_it_keeps_is_readable_by_its_owner_alone()
    {
        using var folder = new Folder();
        var data = folder.Of("data");
        using var server = Server.StartReal(data);
        Assert.True(await server.AnswersAsync());
        foreach (var path in Directory.EnumerateFileSystemEntries(data, "*", SearchOption.AllDirectories).Prepend(data))
            Assert.True(
                (
                    File.GetUnixFileMode(path)
                    & ~(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute)
                ) == 0,
                $"{path}: {File.GetUnixFileMode(path)}"
            );
    }
}
