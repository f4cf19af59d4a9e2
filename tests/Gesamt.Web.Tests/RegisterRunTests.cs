namespace Gesamt.Web.Tests;

/// <summary>The Register narrowed to a routine, over the whole demo.</summary>
public sealed class RegisterRunTests(FullStudio studio) : IClassFixture<FullStudio>
{
    [Fact]
    public async Task Who_is_in_a_routine_finished_it_or_was_taken_out_stands_with_both_dates()
    {
        var owner = await studio.OwnerAsync();
        var names = (await owner.GetAsync("/api/register/routines"))
            .EnumerateArray()
            .Select(one => one.GetString())
            .ToList();
        Assert.Contains("After a proposal", names);
        async Task<List<(long Id, string Words)>> RunsAsync(string state) =>
            [
                .. (await owner.GetAsync($"/api/register?routine=After%20a%20proposal&run={state}&group=None&most=500"))
                    .GetProperty("groups")
                    .EnumerateArray()
                    .SelectMany(group => group.GetProperty("rows").EnumerateArray())
                    .Select(row => (row.GetProperty("id").GetInt64(), row.GetProperty("cells")[0].GetString()!)),
            ];
        foreach (
            var (state, said) in new[]
            {
                ("InIt", "in it since "),
                ("Finished", "finished, "),
                ("TakenOut", "taken out, "),
            }
        )
        {
            var listed = await RunsAsync(state);
            Assert.All(listed, one => Assert.StartsWith(said, one.Words, StringComparison.Ordinal));
            Assert.All(
                listed,
                one => Assert.Equal(state != "InIt", one.Words.Contains(" to ", StringComparison.Ordinal))
            );
            // the newest run of each, recounted from its own plan
            var counted = await studio.LookAsync(
                async (Hosting.Desk desk) =>
                {
                    List<long> ids = [];
                    foreach (var id in await desk.Db.Projects.Select(p => p.Id).ToListAsync())
                    {
                        var file = await desk.OpenAsync(id);
                        var plan = Core.Routines.Plan.Of(file.Case);
                        if (
                            file.Case.Runs.Where(run => run.Routine.Name == "After a proposal")
                                .OrderBy(run => run.Id.Value)
                                .Select(run => Core.Routines.Plan.StateOf(file.Case, run.Id, plan))
                                .LastOrDefault(one => one is not null)
                                .ToString() == state
                        )
                            ids.Add(id.Value);
                    }
                    return ids;
                }
            );
            Assert.Equal(counted.Order(), listed.Select(one => one.Id).Order());
            Assert.True(state == "Finished" || counted.Count > 0);
        }
        Assert.DoesNotContain(
            "In the routine",
            (await owner.GetAsync("/api/register")).ToString(),
            StringComparison.Ordinal
        );
    }
}
