using System.Text;

namespace Gesamt.Browser.Tests;

/// <summary>A file is looked at where it is kept, whatever a stranger put into it.</summary>
public sealed class FilesShownTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void Documents_tables_and_texts_are_shown_as_they_are_read_and_what_cannot_be_says_so()
    {
        owner.Go("/register?words=signal box café");
        owner.PressWith("Signal box café");
        owner.See("What happened?");
        owner.Unfold("Files");
        Look(
            MadeFiles.Docx(
                "words.docx",
                "The wish",
                "&lt;img src=x onerror=alert(1)&gt; and a lantern",
                "moss",
                "green"
            ),
            () =>
            {
                owner.See("<img src=x onerror=alert(1)> and a lantern");
                Assert.Equal(
                    "The wish|moss|green",
                    owner.Driver.ExecuteScript(
                        "return [...document.querySelectorAll('[role=dialog] h3, [role=dialog] td')].map(e => e.innerText.trim()).join('|')"
                    )
                );
            }
        );
        Look(MadeFiles.Xlsx("guests.xlsx", "Guests", "Ana", "14 May"), () => owner.See("14 May"));
        Look(
            MadeFiles.Kept("hello.txt", Encoding.UTF8.GetBytes("Żółć\nlet x = </script>")),
            () => owner.See("let x = </script>")
        );
        Look(MadeFiles.Pdf("one.pdf", "A page alone"), () => owner.See("A page alone"));
        // what says it is one of them and is none
        foreach (
            var (name, says) in new[]
            {
                ("none.docx", "This document cannot be shown here."),
                ("none.xlsx", "This table cannot be shown here."),
            }
        )
            Look(MadeFiles.Kept(name, [.. "PK\x03\x04"u8, .. new byte[600]]), () => owner.See(says));
        Look(
            MadeFiles.Kept("cut.pdf", Encoding.ASCII.GetBytes("%PDF-1.7\n1 0 obj<</Type/Catalog")),
            () => owner.See("This document cannot be shown here.")
        );
        Assert.Empty(owner.Complaints());
    }

    private void Look(string file, Action sees)
    {
        var name = Path.GetFileName(file);
        owner.Attach("Files to keep", file);
        owner.See($"Kept: {name}");
        owner.Press("Close");
        owner.Press($"Look at it: {name}");
        sees();
        Assert.Equal("", owner.Violations());
        owner.Key(Keys.Escape);
        owner.SeeHeard($"button “Look at it : {name}”");
    }
}
