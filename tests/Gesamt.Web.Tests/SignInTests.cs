using System.Net;
using System.Text.Json;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;
using OtpNet;

namespace Gesamt.Web.Tests;

/// <summary>The owner's door: sessions that end, waits that grow, codes that open once.</summary>
public sealed class SignInTests
{
    private static async Task<HttpResponseMessage> TryAsync(
        Visitor who,
        string password = "harbour light",
        string? code = null
    )
    {
        await who.TokenAsync("/api/session");
        return await who.PostAsync("/api/session", new { password, code });
    }

    [Fact]
    public async Task A_session_opens_nothing_after_its_sign_out_whoever_kept_its_cookie()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var thief = studio.CreateClient(new() { HandleCookies = false });
        // the cookies as they were before the sign-out
        var kept = new Visitor(studio);
        await kept.TokenAsync("/api/session");
        var signedIn = await kept.PostAsync("/api/session", new { password = "harbour light" });
        var cookie = signedIn
            .Headers.GetValues("Set-Cookie")
            .Single(c => c.StartsWith("gesamt-owner=", StringComparison.Ordinal))
            .Split(';')[0];
        async Task<HttpStatusCode> TodayAsync()
        {
            var request = new HttpRequestMessage(HttpMethod.Get, "/api/today");
            request.Headers.Add("Cookie", cookie);
            return (await thief.SendAsync(request)).StatusCode;
        }
        Assert.Equal(HttpStatusCode.OK, await TodayAsync());
        await kept.TokenAsync("/api/session");
        Assert.True((await kept.SendAsync(HttpMethod.Delete, "/api/session", null)).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, await TodayAsync());
        Assert.True((await owner.AskAsync("/api/today")).IsSuccessStatusCode); // another browser stays signed in
    }

    [Fact]
    public async Task Open_sessions_are_listed_and_ended_one_by_one()
    {
        await using var studio = new EmptyStudio();
        var (desk, telephone) = (await studio.OwnerAsync(), await studio.OwnerAsync());
        var sessions = (await desk.GetAsync("/api/sessions")).EnumerateArray().ToList();
        Assert.Equal(2, sessions.Count);
        var other = sessions.Single(s => !s.GetProperty("this").GetBoolean()).GetProperty("id").GetInt32();
        Assert.True((await desk.SendAsync(HttpMethod.Delete, $"/api/sessions/{other}", null)).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await telephone.AskAsync("/api/today")).StatusCode);
        Assert.Single((await desk.GetAsync("/api/sessions")).EnumerateArray());
        await studio.OwnerAsync();
        Assert.True((await desk.PostAsync("/api/session/end-all")).IsSuccessStatusCode);
        Assert.Equal(0, await studio.LookAsync(db => db.Sessions.CountAsync(s => s.EndedAt == null)));
    }

    [Fact]
    public async Task Wrong_passwords_wait_longer_and_longer_and_never_shut_the_owners_own_browser_out()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        await owner.SendAsync(HttpMethod.Delete, "/api/session", null);
        List<HttpResponseMessage> answers = [];
        for (var i = 0; i < 20; i++)
            answers.Add(await TryAsync(new Visitor(studio), $"guess {i}"));
        Assert.Equal(HttpStatusCode.Unauthorized, answers[0].StatusCode);
        Assert.Equal(HttpStatusCode.TooManyRequests, answers[^1].StatusCode);
        Assert.NotNull(answers[^1].Headers.RetryAfter);
        // even the right password waits from a browser nobody knows, and the known one goes in
        Assert.Equal(HttpStatusCode.TooManyRequests, (await TryAsync(new Visitor(studio))).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await TryAsync(owner)).StatusCode);
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 11, 0));
        Assert.Equal(HttpStatusCode.NoContent, (await TryAsync(new Visitor(studio))).StatusCode);
    }

    [Fact]
    public void Each_wrong_try_doubles_the_wait_up_to_a_quarter_of_an_hour()
    {
        var (time, now) = (new AdjustableClock(TimeProvider.System), Instant.FromUtc(2027, 1, 25, 10, 30));
        time.Set(now, stands: true);
        var tries = new Tries(time);
        List<double> waits = [];
        for (var i = 0; i < 18; i++)
        {
            tries.Fail("198.51.100.7", null);
            waits.Add(tries.WaitOf("198.51.100.7", null).TotalSeconds);
        }
        Assert.Equal([0, 0, 0, 1, 2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900, 900, 900], waits);
        Assert.Equal(0, tries.WaitOf("203.0.113.9", "a known browser").TotalSeconds);
        Assert.True(tries.WaitOf("203.0.113.9", null).TotalSeconds > 0); // the account as a whole is guessed at
        time.Set(now + Duration.FromMinutes(15), stands: true);
        Assert.Equal(0, tries.WaitOf("198.51.100.7", null).TotalSeconds);
    }

    [Theory] // RFC 6238, appendix B: SHA-1, the secret of ASCII “12345678901234567890”, eight digits
    [
        InlineData(59, "94287082"),
        InlineData(1111111109, "07081804"),
        InlineData(1111111111, "14050471"),
        InlineData(1234567890, "89005924"),
        InlineData(2000000000, "69279037"),
        InlineData(20000000000, "65353130")
    ]
    public void The_library_computes_the_codes_of_the_standard(long seconds, string code) =>
        Assert.Equal(
            code,
            new Totp("12345678901234567890"u8.ToArray(), totpSize: 8).ComputeTotp(
                DateTimeOffset.FromUnixTimeSeconds(seconds).UtcDateTime
            )
        );

    [Fact]
    public async Task One_time_codes_open_once_and_recovery_codes_when_the_telephone_is_lost()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var secret = await JsonAsync(await owner.PostAsync("/api/codes/new"));
        Assert.StartsWith("data:image/svg+xml;base64,", secret.GetProperty("picture").GetString());
        var totp = new Totp(Base32Encoding.ToBytes(secret.GetProperty("secret").GetString()));
        string Code() => totp.ComputeTotp(studio.Services.GetRequiredService<TimeProvider>().GetUtcNow().UtcDateTime);
        var wrong = await owner.PostAsync(
            "/api/codes/on",
            new { secret = secret.GetProperty("secret").GetString(), code = "000000" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        var recovery = (
            await JsonAsync(
                await owner.PostAsync(
                    "/api/codes/on",
                    new { secret = secret.GetProperty("secret").GetString(), code = Code() }
                )
            )
        )
            .GetProperty("recovery")
            .EnumerateArray()
            .Select(c => c.GetString()!)
            .ToList();
        Assert.Equal(10, recovery.Distinct().Count());
        Assert.DoesNotContain(
            recovery[0].Replace("-", ""),
            await studio.LookAsync(db => db.Studio.Select(s => s.RecoveryCodes + s.CodeSecret).SingleAsync())
        );

        var other = new Visitor(studio);
        var asked = await TryAsync(other);
        Assert.Equal(HttpStatusCode.Unauthorized, asked.StatusCode);
        Assert.True((await JsonAsync(asked)).GetProperty("needsCode").GetBoolean());
        Assert.Equal(HttpStatusCode.Unauthorized, (await TryAsync(other, code: Code())).StatusCode); // the one it was turned on with was used
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 32));
        Assert.Equal(HttpStatusCode.NoContent, (await TryAsync(other, code: Code())).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await TryAsync(new Visitor(studio), code: Code())).StatusCode); // once
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await TryAsync(new Visitor(studio), code: recovery[3].ToUpperInvariant())).StatusCode
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await TryAsync(new Visitor(studio), code: recovery[3])).StatusCode);
        Assert.Equal(9, (await owner.GetAsync("/api/codes")).GetProperty("recoveryLeft").GetInt32());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync("/api/codes/off", new { password = "guess" })).StatusCode
        );
        Assert.True((await owner.PostAsync("/api/codes/off", new { password = "harbour light" })).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await TryAsync(new Visitor(studio))).StatusCode);
    }

    private static async Task<JsonElement> JsonAsync(HttpResponseMessage answer) =>
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;

    [Fact] // draft-ietf-httpapi-idempotency-key-header, 2.7: the same key with another payload is 422
    public async Task A_key_answers_again_only_to_who_asked_first_and_for_the_same()
    {
        await using var studio = new EmptyStudio();
        var (owner, other) = (await studio.OwnerAsync(), await studio.OwnerAsync());
        var first = await owner.PostAsync(
            "/api/slips",
            new { text = "Ring Ada", project = (long?)null },
            "one-key-for-a-slip"
        );
        var again = await owner.PostAsync(
            "/api/slips",
            new { text = "Ring Ada", project = (long?)null },
            "one-key-for-a-slip"
        );
        Assert.Equal(await first.Content.ReadAsStringAsync(), await again.Content.ReadAsStringAsync());
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await owner.PostAsync(
                    "/api/slips",
                    new { text = "Ring Oona", project = (long?)null },
                    "one-key-for-a-slip"
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await other.PostAsync(
                    "/api/slips",
                    new { text = "Ring Ada", project = (long?)null },
                    "one-key-for-a-slip"
                )
            ).StatusCode
        );
        Assert.Equal(1, await studio.LookAsync(db => db.Slips.CountAsync()));
    }

    [Fact]
    public async Task The_same_key_through_two_copies_at_once_is_one_act_and_no_fault()
    {
        await using var one = new EmptyStudio();
        await using var two = new OnFolder(one.Data);
        var visitors = new[] { new Visitor(one), new Visitor(two) };
        foreach (var visitor in visitors)
            await visitor.TokenAsync("/forms/mural");
        visitors[1].Token = visitors[0].Token; // the same form, sent through both
        for (var i = 0; i < 8; i++)
        {
            var key = $"one-key-through-both-{i}";
            var answers = await Task.WhenAll(
                visitors.SelectMany(v =>
                    new[]
                    {
                        v.PostAsync("/forms/mural", new { answers = Studio.Answers }, key),
                        v.PostAsync("/forms/mural", new { answers = Studio.Answers }, key),
                    }
                )
            );
            Assert.All(
                answers,
                answer =>
                    Assert.True(
                        answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.Conflict,
                        $"{(int)answer.StatusCode}"
                    )
            );
            Assert.Equal(i + 1, await one.LookAsync(db => db.Projects.CountAsync()));
        }
    }
}
