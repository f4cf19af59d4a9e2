using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;

namespace Gesamt.Browser.Tests;

/// <summary>Somebody at a browser of their own, who finds things by what they are called.</summary>
public sealed class Person : IDisposable
{
    private readonly string profile = Directory.CreateTempSubdirectory("gesamt-profile").FullName;
    private readonly ChromeDriverService service;
    private readonly Uri address;
    private string within = "";

    public Person(Uri address)
    {
        this.address = address;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-dev-shm-usage",
            "--hide-scrollbars",
            "--force-device-scale-factor=1",
            "--force-prefers-reduced-motion",
            "--lang=en-IE",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-quic",
            "--disable-extensions",
            "--no-first-run",
            "--no-default-browser-check",
            "--password-store=basic",
            $"--user-data-dir={profile}"
        );
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        Driver = new(service, options, TimeSpan.FromSeconds(60));
        Driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(30);
        Screen(1280, 800);
    }

    public ChromeDriver Driver { get; }

    /// <summary>Presses, choices, ticks and files so far: everything but moving about and writing freely.</summary>
    public int Acts { get; private set; }

    public void Screen(int width, int height, bool dark = false)
    {
        Driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = width < 500,
            }
        );
        Driver.ExecuteCdpCommand(
            "Emulation.setEmulatedMedia",
            new()
            {
                ["features"] = new[]
                {
                    new Dictionary<string, object>
                    {
                        ["name"] = "prefers-color-scheme",
                        ["value"] = dark ? "dark" : "light",
                    },
                },
            }
        );
    }

    public void Go(string path) => Driver.Navigate().GoToUrl(new Uri(address, path));

    public void SignIn()
    {
        Go("/");
        Type("Your password", "harbour light");
        Press("Sign in");
        See("Your turn");
    }

    /// <summary>Does something inside the group of that name, where the same labels stand several times on a page.</summary>
    public void Within(string group, Action act)
    {
        within = group;
        try
        {
            act();
        }
        finally
        {
            within = "";
        }
    }

    /// <summary>Waits until the page shows a text, however its spaces are set.</summary>
    public void See(string text) =>
        Wait(() => Text.Contains(text, StringComparison.Ordinal), () => $"“{text}” is not shown. Shown is:\n{Text}");

    public void SeeNot(string text) =>
        Wait(() => !Text.Contains(text, StringComparison.Ordinal), () => $"“{text}” is still shown.");

    /// <summary>Waits until the page has asked the studio for this, and has its answer.</summary>
    public void SeeAsked(string address) =>
        Wait(
            () =>
                (bool)
                    Driver.ExecuteScript(
                        "return performance.getEntriesByType('resource').some(e => e.responseEnd && e.name.endsWith(arguments[0]))",
                        address
                    )!,
            () => $"{address} was not asked for. Shown is:\n{Text}"
        );

    /// <summary>Waits until a letter has left, and its sheet has said so and closed itself; how long it says which of the two is not counted on.</summary>
    public void SeeItLeave()
    {
        bool Says() =>
            Text is var shown && (shown.Contains("It is on its way") || shown.Contains("It leaves the house"));
        Wait(Says, () => $"No letter is on its way. Shown is:\n{Text}");
        Wait(() => !Says(), () => $"The letter has not left. Shown is:\n{Text}");
    }

    public string Text =>
        (string)Driver.ExecuteScript("return document.body.innerText.replace(/[\\u00a0\\u202f]/g, ' ')")!;

    /// <summary>Presses the button or link of that name.</summary>
    public void Press(string name)
    {
        Acts++;
        Click(() => Named(name));
    }

    /// <summary>Presses the first button or link whose text begins or goes on with these words.</summary>
    public void PressWith(string words) =>
        Click(() =>
            Script(
                "return [...document.querySelectorAll('main button,main a,[role=dialog] button')].find(e => !e.disabled && e.getClientRects().length && e.innerText.replace(/\\s+/g, ' ').includes(arguments[0])) ?? null",
                words
            )
        );

    /// <summary>Presses the button or link of that name inside the article or section of another.</summary>
    public void PressIn(string group, string name) =>
        Click(() =>
            Script(
                "const g = [...document.querySelectorAll('article,aside,section,form')].find(e => (e.getAttribute('aria-label') ?? '').includes(arguments[0])); return g ? [...g.querySelectorAll('button,a')].find(e => !e.disabled && e.getClientRects().length && e.innerText.replace(/\\s+/g, ' ').trim() === arguments[1]) ?? null : null",
                group,
                name
            )
        );

    /// <summary>Whether an article or section of that name stands on the page.</summary>
    public bool Has(string group) =>
        Driver
            .FindElements(By.CssSelector("article,section"))
            .Any(e => (e.GetAttribute("aria-label") ?? "").Contains(group, StringComparison.Ordinal));

    /// <summary>Opens a part of the sheet that is folded to one line; one that stands open stays so, and nothing in it is pressed.</summary>
    public void Unfold(string part)
    {
        bool IsOpen() =>
            Script(
                "return [...document.querySelectorAll('aside section')].find(s => s.getAttribute('aria-label') === arguments[0]) ?? null",
                part
            )
                is not null;
        IWebElement? Fold() =>
            Script(
                "return [...document.querySelectorAll('aside button[aria-expanded=false]')].find(b => b.innerText.trim().startsWith(arguments[0])) ?? null",
                part
            );
        Wait(() => IsOpen() || Fold() is not null, () => $"The sheet has no part “{part}”. Shown is:\n{Text}");
        if (!IsOpen())
            Click(Fold);
    }

    /// <summary>Ticks or chooses what is labelled so.</summary>
    public void Tick(string label)
    {
        Acts++;
        Click(() => Labelled(label));
    }

    public void Type(string label, string text)
    {
        Wait(() => Labelled(label) is not null, () => $"No field “{label}”. Shown is:\n{Text}");
        var field = Labelled(label)!;
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(text.Length > 0 ? text : Keys.Delete);
        // a day, a time or an amount is read while it is typed
        Wait(() => field.GetAttribute("aria-busy") != "true", () => $"“{text}” is still being read.");
    }

    /// <summary>Chooses a file for the field of that name, which need not be seen.</summary>
    public void Attach(string label, string file)
    {
        Acts++;
        Wait(() => Attached(label) is not null, () => $"No field “{label}”. Shown is:\n{Text}");
        Attached(label)!.SendKeys(file);
    }

    private IWebElement? Attached(string label) =>
        Script(
            "return [...document.querySelectorAll('input[type=file]')].find(e => e.getAttribute('aria-label') === arguments[0]) ?? null",
            label
        );

    public void Choose(string label, string option)
    {
        Acts++;
        Click(() =>
            Labelled(label)
                ?.FindElements(By.TagName("option"))
                .FirstOrDefault(o => o.Text.StartsWith(option, StringComparison.Ordinal))
        );
    }

    /// <summary>Chooses from the menu that hangs from a button.</summary>
    public void Pick(string button, string item)
    {
        Press(button);
        Acts++;
        Click(() =>
            Driver
                .FindElements(By.CssSelector("[role=menuitem]"))
                .FirstOrDefault(e => e.Text.StartsWith(item, StringComparison.Ordinal))
        );
    }

    /// <summary>What a field holds; nothing while it is not there.</summary>
    /// <summary>Writes into a field and leaves the page in the same moment, before anything of it could be kept at leisure.</summary>
    public void TypeAndLeave(string label, string text)
    {
        Wait(() => Labelled(label) is not null, () => $"No field “{label}”. Shown is:\n{Text}");
        Driver.ExecuteScript(
            """
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(arguments[0], arguments[1]);
            arguments[0].dispatchEvent(new Event('input', { bubbles: true }));
            location.href = 'about:blank';
            """,
            Labelled(label),
            text
        );
    }

    public string ValueOf(string label) => Labelled(label)?.GetAttribute("value") ?? "";

    /// <summary>What the field that has the focus is called.</summary>
    public string Focused() =>
        (string)
            Driver.ExecuteScript(
                "return document.activeElement?.labels?.[0]?.innerText ?? document.activeElement?.innerText ?? ''"
            )!;

    /// <summary>Role and name of what has the focus, as the browser tells them to a screen reader.</summary>
    public string Heard()
    {
        while (true)
        {
            try
            {
                var at = (WebElement)Driver.SwitchTo().ActiveElement();
                return $"{at.ComputedAccessibleRole} “{at.ComputedAccessibleLabel.Replace('\u00a0', ' ').Replace('\u202f', ' ')}”";
            }
            catch (StaleElementReferenceException)
            {
                // it left the page between the two questions: something else has the focus by now
            }
        }
    }

    /// <summary>Waits until the focus is there.</summary>
    public void SeeHeard(string heard) =>
        Wait(
            () => Heard().StartsWith(heard, StringComparison.Ordinal),
            () => $"The focus is not on {heard} but on {Heard()}:\n{Text}"
        );

    /// <summary>Presses a key until what has the focus is heard to be that.</summary>
    public void KeyTo(string key, string role, string name, int most = 60)
    {
        List<string> heard = [];
        for (var i = 0; i < most; i++)
        {
            Key(key);
            heard.Add(Heard());
            if (
                heard[^1].StartsWith(role, StringComparison.Ordinal)
                && heard[^1].Contains(name, StringComparison.Ordinal)
            )
                return;
        }
        Assert.Fail($"{role} “{name}” was not reached by {key}: {string.Join("\n", heard)}");
    }

    /// <summary>Presses a key while another is held down.</summary>
    public void Chord(string held, string key) => new Actions(Driver).KeyDown(held).SendKeys(key).KeyUp(held).Perform();

    public void Key(params string[] keys) => Array.ForEach(keys, key => new Actions(Driver).SendKeys(key).Perform());

    /// <summary>The page under a heading of that name, as its nearest section.</summary>
    public string Section(string name) =>
        (string)
            Driver.ExecuteScript(
                "const s = [...document.querySelectorAll('section,article,aside,fieldset')].find(s => s.getAttribute('aria-label') === arguments[0] || document.getElementById(s.getAttribute('aria-labelledby'))?.innerText === arguments[0]); return s ? s.innerText.replace(/[\\u00a0\\u202f]/g, ' ') : ''",
                name
            )!;

    /// <summary>Violations of WCAG A and AA that axe-core finds on the page as it is.</summary>
    public string Violations()
    {
        Driver.ExecuteScript(
            File.ReadAllText(Path.Combine(House.Root, "web", "node_modules", "axe-core", "axe.min.js"))
        );
        return (string)
            Driver.ExecuteAsyncScript(
                "const cb = arguments[arguments.length - 1]; axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(r => cb(r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.target.join(' ') + ' ' + n.failureSummary).join('; ')).join('\\n')))"
            )!;
    }

    public void Shot(string file)
    {
        Wait(
            () =>
                (bool)
                    Driver.ExecuteScript(
                        "return document.fonts.status === 'loaded' && [...document.images].every(i => i.complete)"
                    )!,
            () => "The fonts or the pictures do not load."
        );
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        Driver.GetScreenshot().SaveAsFile(file);
    }

    /// <summary>What the browser complained of, such as a refused style.</summary>
    public IReadOnlyList<string> Complaints() =>
        [
            .. Driver
                .Manage()
                .Logs.GetLog(LogType.Browser)
                .Where(entry => entry.Level >= LogLevel.Warning)
                .Select(entry => entry.Message),
        ];

    public void Wait(Func<bool> until, Func<string> otherwise, int seconds = 40)
    {
        var wait = new WebDriverWait(
            new SystemClock(),
            Driver,
            TimeSpan.FromSeconds(seconds),
            TimeSpan.FromMilliseconds(25)
        );
        try
        {
            wait.Until(_ =>
            {
                try
                {
                    return until();
                }
                catch (StaleElementReferenceException)
                {
                    return false;
                }
                catch (JavaScriptException)
                {
                    return false;
                }
            });
        }
        catch (WebDriverTimeoutException)
        {
            Assert.Fail(otherwise());
        }
    }

    private void Click(Func<IWebElement?> find)
    {
        var why = "";
        Wait(
            () =>
            {
                why = "it is not there";
                if (find() is not { } element)
                    return false;
                Driver.ExecuteScript(
                    "window.wasPressed = false; addEventListener('click', () => { window.wasPressed = true }, { capture: true, once: true })"
                );
                try
                {
                    element.Click();
                    return true;
                }
                catch (WebDriverException refused)
                    when (refused
                            is ElementClickInterceptedException
                                or ElementNotInteractableException
                                or StaleElementReferenceException
                    )
                {
                    why = refused.Message;
                    // what the press itself took off the page is gone before the driver has done with it: it was pressed all the same, and a second press would meet what opened
                    return (bool)Driver.ExecuteScript("return window.wasPressed === true")!;
                }
            },
            () => $"It cannot be pressed: {why}\nShown is:\n{Text}"
        );
    }

    /// <summary>Lets a file fall onto the page, as from a folder of the device.</summary>
    public void Drop(string name, byte[] bytes, string type) =>
        Driver.ExecuteScript(
            """
            const [name, bytes, type] = arguments;
            const files = new DataTransfer();
            files.items.add(new File([Uint8Array.from(atob(bytes), c => c.charCodeAt(0))], name, { type }));
            const main = document.querySelector("main");
            for (const event of ["dragover", "drop"])
              main.dispatchEvent(new DragEvent(event, { bubbles: true, cancelable: true, dataTransfer: files }));
            """,
            name,
            Convert.ToBase64String(bytes),
            type
        );

    /// <summary>The bytes of the first file that the page links and whose address ends so.</summary>
    public byte[] Fetched(string ending) =>
        Convert.FromBase64String(
            (string)
                Driver.ExecuteAsyncScript(
                    """
                    const done = arguments[arguments.length - 1];
                    fetch(document.querySelector(`main a[href$="${arguments[0]}"]`).href).then(r => r.blob()).then(b => {
                      const reader = new FileReader();
                      reader.onload = () => done(reader.result.split(",")[1]);
                      reader.readAsDataURL(b);
                    });
                    """,
                    ending
                )!
        );

    private IWebElement? Named(string name) =>
        Script(
            "return [...document.querySelectorAll('button,a,summary,[role=button]')].filter(e => !e.disabled && e.getClientRects().length).find(e => [e.innerText, e.getAttribute('aria-label') ?? '', e.textContent].some(t => t.replace(/\\s+/g, ' ').trim() === arguments[0])) ?? null",
            name
        );

    private IWebElement? Labelled(string label) =>
        Script(
            """
            const is = t => (t ?? '').replace(/\s+/g, ' ').trim() === arguments[0];
            const all = (s, root) => [...root.querySelectorAll(s)].filter(e => e.getClientRects().length);
            const named = n => all(`[aria-label="${n}"]`, document).at(-1) ?? all('fieldset', document).find(f => f.querySelector('legend')?.innerText.trim() === n);
            const root = arguments[1] ? named(arguments[1]) : document;
            if (!root) return null;
            const labels = all('label', root);
            const found = labels.find(l => is(l.innerText) || is(l.textContent)) ?? labels.find(l => l.innerText.replace(/\s+/g, ' ').trim().startsWith(arguments[0]));
            return found?.control ?? all('input,textarea,select', root).find(e => is(e.getAttribute('aria-label'))) ?? null
            """,
            label,
            within
        );

    private IWebElement? Script(string script, params object[] arguments) =>
        Driver.ExecuteScript(script, arguments) as IWebElement;

    public void Dispose()
    {
        Driver.Quit();
        Driver.Dispose();
        service.Dispose();
        Directory.Delete(profile, recursive: true);
    }
}
