namespace Gesamt.Web.Hosting;

/// <summary>Addresses of pages elsewhere that people type in.</summary>
public static class WebAddress
{
    public const string Allowed = "A link begins with https:// or http://, and has at most 500 characters.";

    /// <summary>Whether it is an absolute http or https address.</summary>
    public static bool Is(string text) =>
        text.Length <= 500 && Uri.TryCreate(text, UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http";

    /// <summary>As it was typed; “www.…” is meant as https.</summary>
    public static string Meant(string text) =>
        text.Trim() is var trimmed && trimmed.StartsWith("www.", StringComparison.OrdinalIgnoreCase)
            ? $"https://{trimmed}"
            : trimmed;
}
