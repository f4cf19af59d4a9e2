using System.Net;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>What is typed into a field, as anybody reads it who has no sign-in: a client at a form.</summary>
public sealed class TypingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Theory] // the clock stands at Mon 25 Jan 2027
    [InlineData("/typed/day?text=fri", "2027-01-29", "Fri 29 Jan, in 4 days")]
    [InlineData("/typed/day?text=fri&lean=Back", "2027-01-22", "Fri 22 Jan, 3 days ago")]
    [InlineData("/typed/day?text=in%203%20weeks", "2027-02-15", "Mon 15 Feb, in 21 days")]
    [InlineData("/typed/day?text=soon", null, "Write a day, such as fri")]
    [InlineData("/typed/time?text=3%20pm", "15:00:00", "15:00")]
    [InlineData("/typed/time?text=25:00", null, "Write a time of day")]
    [InlineData("/typed/amount?text=1.234%2C50", "1234.5", "€ 1 234.50")]
    [InlineData("/typed/amount?text=1.500", null, "It can be read as 1 500 or 1.5")]
    [InlineData("/typed/size?text=6%20x%204&unit=m%C2%B2", "6 x 4", "read as 24 m²")]
    [InlineData("/typed/size?text=about%2024&unit=m%C2%B2", "about 24", "read as 24 m²")]
    [InlineData("/typed/size?text=24&unit=m%C2%B2", "24", "")]
    [InlineData("/typed/size?text=wide&unit=m%C2%B2", null, "“about 24” or “6 x 4”")]
    [InlineData("/typed/size?text=2.125", null, "“2.125” can be read as")]
    [InlineData("/typed/range?text=1k%20to%202k", "1k to 2k", "read as 1000-2000")]
    [InlineData("/typed/amount?text=99999999999999999999", null, "Write an amount")]
    public async Task It_is_read_at_once_or_what_is_allowed_is_said(string path, string? value, string words)
    {
        var read = await new Visitor(studio).GetAsync(path);
        Assert.Equal(value, read.GetProperty("value").GetString());
        Assert.Contains(words, read.GetProperty("words").GetString()!.Replace('\u00a0', ' ').Replace('\u202f', ' '));
    }

    [Theory]
    [InlineData("/typed/day", "text"), InlineData("/typed/day?text=fri&lean=Sideways", "lean")]
    public async Task What_the_address_lacks_is_named(string path, string field)
    {
        var answer = await new Visitor(studio).AskAsync(path);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var problem = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
        Assert.True(problem.GetProperty("errors").TryGetProperty(field, out _), problem.ToString());
    }

    [Fact]
    public async Task A_question_is_shown_by_the_answers_it_hangs_on()
    {
        static object Field(string key, object? shownIf = null) =>
            new
            {
                key,
                label = key,
                sort = "ShortText",
                required = false,
                hint = (string?)null,
                unit = (string?)null,
                options = (string[]?)null,
                fills = (string?)null,
                shownIf,
            };
        var fields = new[]
        {
            Field("wall"),
            Field("height", new { field = "wall", @is = new[] { "outside" } }),
            Field("scaffold", new { field = "height", @is = new[] { "high" } }),
        };
        async Task<string[]> ShownAsync(object answers)
        {
            var answer = await new Visitor(studio).PostAsync("/typed/shown", new { fields, answers });
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
            return JsonSerializer.Deserialize<string[]>(await answer.Content.ReadAsStringAsync())!;
        }
        Assert.Equal(["wall"], await ShownAsync(new { wall = "inside", height = "high" }));
        Assert.Equal(["wall", "height"], await ShownAsync(new { wall = "outside" }));
        Assert.Equal(["wall", "height", "scaffold"], await ShownAsync(new { wall = "outside", height = "high" }));
    }
}
