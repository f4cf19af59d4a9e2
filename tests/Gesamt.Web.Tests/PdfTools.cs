using System.Diagnostics;

namespace Gesamt.Web.Tests;

/// <summary>Independent programs that read and write PDF: poppler's and qpdf.</summary>
internal static class PdfTools
{
    /// <param name="arguments">FILE stands for the file.</param>
    public static (int Code, string Said) Run(string program, byte[] file, params string[] arguments)
    {
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        File.WriteAllBytes(path, file);
        try
        {
            var start = new ProcessStartInfo(program) { RedirectStandardOutput = true, RedirectStandardError = true };
            foreach (var argument in arguments)
                start.ArgumentList.Add(argument.Replace("FILE", path, StringComparison.Ordinal));
            using var process = Process.Start(start)!;
            var said = process.StandardOutput.ReadToEndAsync();
            var complained = process.StandardError.ReadToEnd();
            process.WaitForExit();
            return (process.ExitCode, said.Result + complained);
        }
        finally
        {
            File.Delete(path);
        }
    }

    public static byte[] Encrypted(byte[] file)
    {
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        try
        {
            var (code, said) = Run("qpdf", file, "--encrypt", "reader", "keeper", "256", "--", "FILE", path);
            return code == 0 ? File.ReadAllBytes(path) : throw new InvalidOperationException(said);
        }
        finally
        {
            File.Delete(path);
        }
    }
}
