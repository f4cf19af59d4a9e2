using System.Diagnostics;

namespace Gesamt.Web.Hosting;

/// <summary>Places before and after each commit of sending, and after that of an erasure, at which the tests end the process, as a power cut would.</summary>
public static class KillPoints
{
    private static readonly string? At = Environment.GetEnvironmentVariable("GESAMT_KILL_AT");

    /// <summary>Somebody is erased, and the disk is not cleared yet.</summary>
    public const string Erased = "erased";

    /// <summary>Those of sending.</summary>
    public static readonly string[] All =
    [
        "claiming",
        "claimed",
        "hand-over-begun",
        "carrier-before",
        "carrier-after",
        "handed-over",
        "confirmed",
    ];

    public static void Reach(string point)
    {
        if (At == point)
            Process.GetCurrentProcess().Kill(); // SIGKILL: nothing is flushed or closed
    }
}
