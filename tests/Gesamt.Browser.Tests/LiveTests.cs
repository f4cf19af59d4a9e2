using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Gesamt.Browser.Tests;

/// <summary>What happens while a page is fetched stands on it.</summary>
public sealed class LiveTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    // the first answer of an address is held back in the browser, and what the page hears is counted
    private const string Held = """
        const fetched = window.fetch;
        window.fetch = async (...asked) => {
            const answer = await fetched(...asked);
            const path = new URL(asked[0].url ?? asked[0], location.href).pathname;
            if (window.holds === path) {
                window.holds = undefined;
                await new Promise(release => { window.release = release; });
            }
            return answer;
        };
        const Source = window.EventSource;
        window.heard = 0;
        window.EventSource = class extends Source {
            constructor(...to) {
                super(...to);
                this.addEventListener('changed', () => { window.heard++; });
            }
        };
        """;

    [Fact]
    public async Task What_happens_while_a_record_is_fetched_for_the_first_time_stands_on_it()
    {
        owner.Driver.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?> { ["source"] = Held }
        );
        using var scope = demo.House.Services.CreateScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var project = await desk
            .Db.Projects.Where(p => p.Title == "Larkspur nursery")
            .Select(p => p.Id)
            .SingleAsync(TestContext.Current.CancellationToken);
        owner.Go("/register?words=larkspur");
        owner.See("Larkspur nursery");
        owner.Driver.ExecuteScript($"window.holds = '/api/projects/{project.Value}'");
        owner.PressWith("Larkspur nursery");
        owner.Wait(() => Is("Boolean(window.release)"), () => owner.Text);
        var heard = $"window.heard > {owner.Driver.ExecuteScript("return window.heard")}";
        await Tasks.AddAsync(desk, project, new("Ring the bell", desk.Today, null));
        owner.Wait(() => Is(heard), () => "The page heard nothing.");
        owner.Driver.ExecuteScript("window.release()");
        owner.See("Ring the bell");
    }

    private bool Is(string condition) => (bool)owner.Driver.ExecuteScript($"return {condition}")!;
}
