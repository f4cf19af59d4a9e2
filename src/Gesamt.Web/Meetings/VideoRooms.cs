namespace Gesamt.Web.Meetings;

/// <summary>A room to meet in.</summary>
public sealed record VideoRoom(string Link, string Passcode);

/// <summary>Opens rooms for meetings by video.</summary>
public interface IVideoRooms
{
    /// <summary>A room of that name; null where no service is set up.</summary>
    Task<VideoRoom?> OpenAsync(string name, string origin, CancellationToken stop);
}

/// <summary>No video service: the owner writes the place of such a meeting by hand.</summary>
public sealed class NoVideoRooms : IVideoRooms
{
    /// <inheritdoc/>
    public Task<VideoRoom?> OpenAsync(string name, string origin, CancellationToken stop) =>
        Task.FromResult<VideoRoom?>(null);
}
