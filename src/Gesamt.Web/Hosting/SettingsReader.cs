using System.Reflection;

namespace Gesamt.Web.Hosting;

/// <summary>A setting says what cannot be: the message names it, and says what can.</summary>
public sealed class SettingException(string message) : Exception(message)
{
    internal static SettingException Of(string name, string said, string what) =>
        new($"Gesamt__{name}: “{said}” is {what}.");
}

/// <summary>Reads what this copy is set to.</summary>
public static class SettingsReader
{
    /// <summary>What is set for this copy, checked: nothing is opened or laid with a setting that cannot be.</summary>
    /// <exception cref="SettingException">One says what cannot be.</exception>
    public static Settings Read(IConfiguration configuration)
    {
        var settings = Bound(configuration.GetSection("Gesamt"));
        if (settings.Address.Length > 0 && !IsWebAddress(settings.Address))
            throw SettingException.Of(
                nameof(Settings.Address),
                settings.Address,
                "no address such as https://studio.example"
            );
        foreach (
            var (name, number) in new (string, long)[]
            {
                (nameof(Settings.SignInsPerMinute), settings.SignInsPerMinute),
                (nameof(Settings.InquiriesPerMinute), settings.InquiriesPerMinute),
                (nameof(Settings.ClientCallsPerMinute), settings.ClientCallsPerMinute),
                (nameof(Settings.OpenCallsPerMinute), settings.OpenCallsPerMinute),
                (nameof(Settings.UploadMegabytesPerAddress), settings.UploadMegabytesPerAddress),
                (nameof(Settings.UploadMegabytes), settings.UploadMegabytes),
                (nameof(Settings.ClientMegabytesPerDay), settings.ClientMegabytesPerDay),
            }
        )
            if (number < 1)
                throw SettingException.Of(name, $"{number}", "less than 1, with which nobody comes in");
        _ = (settings.ClockAt, settings.Believed());
        return settings;
    }

    private static Settings Bound(IConfigurationSection section)
    {
        try
        {
            return section.Get<Settings>() ?? new();
        }
        catch (InvalidOperationException e)
        {
            // a word for a number, or a mode there is not
            throw section
                .AsEnumerable()
                .FirstOrDefault(one => e.Message.Contains($"'{one.Key}'", StringComparison.Ordinal))
                is { Key: { } path, Value: { } said }
                ? SettingException.Of(
                    path[(section.Path.Length + 1)..].Replace(":", "__", StringComparison.Ordinal),
                    said,
                    Not(TypeOf(path))
                )
                : new SettingException(e.Message);
        }
    }

    private static Type TypeOf(string path) =>
        path.Split(':')
            .Skip(1)
            .Aggregate(
                typeof(Settings),
                (of, name) =>
                    of.GetProperty(
                        name,
                        BindingFlags.IgnoreCase | BindingFlags.Public | BindingFlags.Instance
                    )!.PropertyType
            );

    private static string Not(Type type) =>
        type.IsEnum ? $"none of {string.Join(", ", Enum.GetNames(type))}"
        : type == typeof(bool) ? "neither true nor false"
        : "no whole number";

    private static bool IsWebAddress(string text) =>
        Uri.TryCreate(text, UriKind.Absolute, out var address)
        && (address.Scheme == Uri.UriSchemeHttps || address.Scheme == Uri.UriSchemeHttp)
        && address is { UserInfo: "", Query: "", Fragment: "" };
}
