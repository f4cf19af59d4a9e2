using System.Diagnostics;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Asks an independent reader from Debian's packages: python3-icalendar, python3-openpyxl and python3-vobject.</summary>
internal static class Python
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    /// <summary>The lines a script prints about what it is given.</summary>
    public static IReadOnlyList<string> Run(string script, string input)
    {
        using var process = Process.Start(
            new ProcessStartInfo("/usr/bin/python3", ["-c", script])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                Environment = { ["PYTHONIOENCODING"] = "utf-8", ["PYTHONUTF8"] = "1" },
                StandardInputEncoding = new System.Text.UTF8Encoding(false),
                StandardOutputEncoding = System.Text.Encoding.UTF8,
            }
        )!;
        process.StandardInput.Write(input);
        process.StandardInput.Close();
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        Assert.True(process.WaitForExit(Longest) && process.ExitCode == 0, error.Result);
        return output.Result.Split('\n', StringSplitOptions.RemoveEmptyEntries);
    }
}
