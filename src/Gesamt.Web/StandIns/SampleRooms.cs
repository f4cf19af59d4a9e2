using System.Security.Cryptography;
using Gesamt.Web.Erasing;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;

namespace Gesamt.Web.StandIns;

/// <summary>A room, and whether it is open.</summary>
public sealed record RoomDto(string Name, bool Open);

/// <summary>The stand-in video service: gives a room a link and a passcode, and a page that opens with it. Nobody is seen or heard there.</summary>
public sealed class SampleRooms(Settings settings)
    : StandInFile(
        settings.Data,
        "video-rooms.db",
        "CREATE TABLE IF NOT EXISTS Rooms(Code TEXT PRIMARY KEY, Name TEXT NOT NULL, Passcode TEXT NOT NULL) STRICT;"
    ),
        IVideoRooms,
        IStandInMemory
{
    /// <inheritdoc/>
    public void Forget(GoneOutside gone)
    {
        using var open = Open();
        foreach (var room in gone.Rooms)
            Run(open, "DELETE FROM Rooms WHERE Code = $c", ("$c", room[(room.LastIndexOf('/') + 1)..]));
        Clear(open);
    }

    /// <inheritdoc/>
    public Task<VideoRoom?> OpenAsync(string name, string origin, CancellationToken stop)
    {
        var (code, passcode) = (Codes.New(), RandomNumberGenerator.GetString("0123456789", 6));
        using var open = Open();
        Run(
            open,
            "INSERT INTO Rooms(Code, Name, Passcode) VALUES($c, $n, $p)",
            ("$c", code),
            ("$n", name),
            ("$p", passcode)
        );
        return Task.FromResult<VideoRoom?>(new($"{origin}/rooms/{code}", passcode));
    }

    /// <exception cref="InvalidException">The passcode is another.</exception>
    public RoomDto Enter(string code, string passcode)
    {
        using var open = Open();
        var rooms = Read(
            open,
            "SELECT Name, Passcode FROM Rooms WHERE Code = $c",
            row => (row.GetString(0), row.GetString(1)),
            ("$c", code)
        );
        if (rooms is not [var (name, known)])
            throw new MissingException("room");
        return known == passcode.Trim()
            ? new(name, true)
            : throw new InvalidException(
                ("passcode", "This is not the passcode of this room; it stands in the invitation.")
            );
    }
}
