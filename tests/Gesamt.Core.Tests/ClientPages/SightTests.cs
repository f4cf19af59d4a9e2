using Gesamt.Core.ClientPages;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.ClientPages;

public sealed class SightTests
{
    private static readonly FileId File = new(4);
    private static readonly Happening Shown = new Happening.FileShown(File),
        Hidden = new Happening.FileHidden(File),
        Removed = new Happening.FileRemoved(File);
    private static readonly Happening Open = new Happening.PartOpened(PagePart.Drafts),
        Closed = new Happening.PartClosed(PagePart.Drafts);

    private static bool MaySee(params Happening[] facts) =>
        Sight.MaySee(
            Case([.. facts.Select((fact, i) => ($"2027-01-{i + 4:00} 09:00", fact))]).History,
            File,
            FileGroup.Drafts
        );

    [Fact]
    public void Everything_is_private_until_it_was_shown_and_its_part_opened()
    {
        Assert.False(MaySee());
        Assert.False(MaySee(Shown));
        Assert.False(MaySee(Open));
        Assert.True(MaySee(Shown, Open));
        Assert.True(MaySee(Open, Shown));
    }

    [Fact]
    public void What_was_hidden_removed_or_closed_is_private_again()
    {
        Assert.False(MaySee(Shown, Open, Hidden));
        Assert.False(MaySee(Shown, Open, Removed));
        Assert.False(MaySee(Shown, Open, Closed));
        Assert.True(MaySee(Shown, Open, Closed, Open));
    }

    [Fact]
    public void Another_part_opens_nothing_here() =>
        Assert.False(MaySee(Shown, new Happening.PartOpened(PagePart.Files)));

    [Fact] // removing and keeping again is a new beginning: it is shown only when it is shown again
    public void A_file_put_back_is_private() =>
        Assert.False(MaySee(Shown, Open, Removed, new Happening.FileKept(File, FileGroup.Drafts)));
}
