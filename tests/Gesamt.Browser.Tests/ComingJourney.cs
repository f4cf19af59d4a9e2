using System.Text;

namespace Gesamt.Browser.Tests;

/// <summary>Somebody comes with what they kept so far: a table of projects, an old mailbox and a folder for each job.</summary>
public sealed class ComingJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    /// <summary>A message in a mailbox file (RFC 4155).</summary>
    private static string Letter(string from, string to, string subject) =>
        $"From {from} Thu Feb  5 09:00:00 2026\nFrom: {from}\nTo: {to}\nSubject: {subject}\nDate: Thu, 5 Feb 2026 09:00:00 +0000\nMessage-ID: <{Guid.NewGuid():n}@came.example>\n\nThe ladder stays.\n\n";

    [Fact]
    public void A_studio_is_put_together_from_a_table_letters_and_a_folder()
    {
        var home = Directory.CreateTempSubdirectory("gesamt-came").FullName;
        string Laid(string path, byte[] bytes)
        {
            var file = Path.Combine(home, path);
            Directory.CreateDirectory(Path.GetDirectoryName(file)!);
            File.WriteAllBytes(file, bytes);
            return file;
        }
        var table = Laid(
            "jobs.csv",
            "Number,Name,Mail,Project,Inquired,Status\n311,Odile Brandt,odile@came.example,Boathouse doors,2026-02-03,done\n312,Odile Brandt,odile@came.example,Slipway sign,2026-11-20,open\n"u8.ToArray()
        );
        var box = Laid(
            "old.mbox",
            Encoding.ASCII.GetBytes(
                Letter("odile@came.example", "me@before.example", "The doors")
                    + Letter("me@before.example", "odile@came.example", "Re: The doors")
                    + Letter("ink@shop.example", "me@before.example", "Ink is cheap")
            )
        );
        Laid("Jobs/312 Slipway/sketch.txt", "a fish and a bell"u8.ToArray());
        Laid("Jobs/Odile Brandt/bill.txt", "for doors"u8.ToArray());
        Laid("Jobs/Odile Brandt/tool.exe", [0x4d, 0x5a, 0, 1]);
        Laid("Jobs/Odile Brandt/second tool.exe", [0x4d, 0x5a, 0, 2]);
        try
        {
            owner.Go("/import");
            owner.Attach("Choose a table", table);
            owner.See("number 311");
            owner.Attach("Add letters", box);
            owner.See("3 letters handed in.");
            owner.See("of which 1 goes nowhere and would be left out.");
            owner.Attach("Add a folder of files", Path.Combine(home, "Jobs"));
            owner.See("2 files handed in.");
            owner.Press("2 not kept");
            owner.See("Each of these is of a kind that is not kept.");
            owner.See("Jobs/Odile Brandt/second tool.exe");
            owner.See("several rows fit");
            Assert.Equal("", owner.Violations());
            owner.Type("Jobs/Odile Brandt, 1 file, goes to row", "9" + Keys.Enter);
            owner.See("The number of a row that reads right, or nothing.");
            owner.Type("Jobs/Odile Brandt, 1 file, goes to row", "2" + Keys.Enter);
            owner.See("you chose it");
            owner.Press("Take over 2 rows with 4 letters and files");
            owner.See("2 taken over");
            owner.See("1 belonged to no row and was left out:");
            owner.See("ink@shop.example: 1 letter");
            Assert.Equal("", owner.Violations());

            owner.Go("/register?putAway=true&words=boathouse");
            owner.PressWith("Boathouse doors");
            owner.See("The ladder stays.");
            owner.Unfold("Files");
            owner.See("bill.txt");

            owner.Go("/import");
            owner.PressWith("jobs.csv");
            owner.Press("Take all of it back");
            owner.See("2 taken back");
            owner.Go("/people?words=brandt");
            owner.SeeNot("Odile Brandt");
            // the browser tells of the one that was refused
            Assert.All(owner.Complaints(), said => Assert.Contains("tool.exe", said, StringComparison.Ordinal));
        }
        finally
        {
            Directory.Delete(home, recursive: true);
        }
    }
}
