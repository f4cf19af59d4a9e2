namespace Gesamt.Web.Hosting;

/// <summary>Whether something is taken out, or put back.</summary>
public sealed record RemovedDto(bool Removed);
