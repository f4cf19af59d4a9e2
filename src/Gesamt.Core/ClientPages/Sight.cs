using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.ClientPages;

/// <summary>What a client may see of a project. Everything is private until it was shown.</summary>
public static class Sight
{
    /// <summary>Since when a part is open; null while it is not.</summary>
    public static Instant? OpenSince(History history, PagePart part)
    {
        Instant? since = null;
        foreach (var fact in history.Facts)
            if (fact.What is Happening.PartOpened opened && opened.Part == part)
                since ??= fact.Happened;
            else if (fact.What is Happening.PartClosed closed && closed.Part == part)
                since = null;
        return since;
    }

    public static bool IsOpen(History history, PagePart part) => OpenSince(history, part) is not null;

    /// <summary>What a part is called within a sentence.</summary>
    public static string Words(PagePart part) =>
        part switch
        {
            PagePart.Whole => "the project as a whole",
            PagePart.Drafts => "drafts",
            PagePart.Files => "files",
            PagePart.Tasks => "tasks for the client",
            PagePart.RunSheet => "run sheet",
            PagePart.Introduction => "introduction",
            PagePart.Lists => "lists",
            PagePart.Boards => "mood boards",
            PagePart.Notes => "shared notes",
            _ => "help",
        };

    /// <summary>What a client asks, within a sentence that begins with them: “about the run sheet”.</summary>
    public static string AskWords(PagePart part) =>
        part switch
        {
            PagePart.Help => "for help",
            PagePart.Whole => "about the project",
            PagePart.Tasks => "about their tasks",
            _ => $"about the {Words(part)}",
        };

    /// <summary>Files that are shown to the client; where they stand follows their group and its part must be open too.</summary>
    public static IReadOnlySet<FileId> Shown(History history)
    {
        var shown = new HashSet<FileId>();
        foreach (var fact in history.Facts)
            switch (fact.What)
            {
                case Happening.FileShown file:
                    shown.Add(file.File);
                    break;
                case Happening.FileHidden file:
                    shown.Remove(file.File);
                    break;
                case Happening.FileRemoved file:
                    shown.Remove(file.File);
                    break;
                default:
                    break;
            }
        return shown;
    }

    /// <summary>The part a file of that group stands in.</summary>
    public static PagePart PartOf(FileGroup group) => group == FileGroup.Drafts ? PagePart.Drafts : PagePart.Files;

    /// <summary>Whether the client may open a file now.</summary>
    public static bool MaySee(History history, FileId file, FileGroup group) =>
        Shown(history).Contains(file) && IsOpen(history, PartOf(group));
}
