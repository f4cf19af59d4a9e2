namespace Gesamt.Web.Hosting;

/// <summary>What stands in the place of an entry that cannot be told.</summary>
public static class Untold
{
    public const string Words = "An entry that cannot be told";
    public const string Detail =
        "What is kept of it is damaged, or was written by a newer Gesamt. A backup may have it whole.";
}
