using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;

namespace Gesamt.Web.Hosting;

/// <summary>Null where a value must stand: the reader of JSON refuses it for fields, but not inside of lists and tables of words.</summary>
public static class Nothing
{
    private const int Deepest = 12;
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Properties = new();

    /// <summary>Refuses a request in which a list or a table holds null; the place is named.</summary>
    /// <exception cref="InvalidException">There is one.</exception>
    public static void IsInside(IEnumerable<object?> arguments)
    {
        foreach (var argument in arguments)
            if (argument is not null && IsOurs(argument.GetType()) && Find(argument, "", 0) is { } path)
                throw new InvalidException((path, "Something must stand here; it cannot be null."));
    }

    private static string? Find(object value, string path, int depth)
    {
        if (depth > Deepest)
            return null;
        if (value is IDictionary table)
        {
            foreach (DictionaryEntry entry in table)
                if (entry.Value is null)
                    return Join(path, $"{entry.Key}");
                else if (Find(entry.Value, Join(path, $"{entry.Key}"), depth + 1) is { } inside)
                    return inside;
            return null;
        }
        if (value is string)
            return null;
        // an array that was never made holds nothing
        if (value is IEnumerable list)
            return value.GetType().GetProperty("IsDefault")?.GetValue(value) is true ? null : InList(list, path, depth);
        if (!IsOurs(value.GetType()))
            return null;
        foreach (
            var property in Properties.GetOrAdd(
                value.GetType(),
                type =>
                    [
                        .. type.GetProperties()
                            .Where(one => one.GetIndexParameters().Length == 0 && IsRead(one.PropertyType)),
                    ]
            )
        )
            if (
                property.GetValue(value) is { } inside
                && Find(inside, Join(path, char.ToLowerInvariant(property.Name[0]) + property.Name[1..]), depth + 1)
                    is { } found
            )
                return found;
        return null;
    }

    private static string? InList(IEnumerable list, string path, int depth)
    {
        var i = 0;
        foreach (var item in list)
        {
            if (item is null)
                return $"{path}[{i}]";
            if (Find(item, $"{path}[{i}]", depth + 1) is { } inside)
                return inside;
            i++;
        }
        return null;
    }

    private static string Join(string path, string name) => path.Length == 0 ? name : $"{path}.{name}";

    private static bool IsRead(Type type) =>
        type != typeof(string)
        && (typeof(IEnumerable).IsAssignableFrom(type) || IsOurs(Nullable.GetUnderlyingType(type) ?? type));

    /// <summary>A record of this program that a request can carry.</summary>
    private static bool IsOurs(Type type) =>
        !type.IsEnum
            && type.Namespace?.StartsWith("Gesamt.", StringComparison.Ordinal) == true
            && type.GetMethod("<Clone>$") is not null
        || type.IsArray && type.GetElementType() is { } of && (of == typeof(string) || IsOurs(of));
}
