# frozen_string_literal: true

require "digest"
require "securerandom"

# Which devices beyond this machine may use the server. An invitation is good for ten minutes and one device; what
# that device then holds is a key of its own, until it is withdrawn.
class KeyRing
  LIFE_SECONDS = 600
  # So many wrong keys a minute from one address; more are not looked at.
  MOST_TRIES = 10
  TRIES_SECONDS = 60
  LONGEST_NAME = 60
  # So long a key is good after it was taken.
  KEPT_SECONDS = 90 * 86_400
  # What was seen lately is not written down again so soon.
  SEEN_SECONDS = 60

  # Raised for a key that is wrong, spent, or too old.
  class Wrong < StandardError; end
  # Raised for too many wrong ones.
  class TooMany < StandardError; end

  # @param clock [#call] the time, in seconds
  def initialize(clock: -> { Time.now })
    @clock = clock
    @tries = Hash.new { |all, address| all[address] = [] }
    @known = {}
    @lock = Mutex.new
  end

  # A key as it is used: what it allows, and of which song (see {Rights}).
  Key = Struct.new(:id, :kind, :song_id)

  # @param kind [String] one of {Rights::KINDS}
  # @param song_id [Integer, nil]
  # @return [Array(String, KeyRow)] the secret, which is told only now
  def invite(kind: "surface", song_id: nil)
    secret = SecureRandom.urlsafe_base64(24)
    row = Database.write do
      KeyRow.where(digest: nil).where("expires_at < ?", now).delete_all
      KeyRow.create!(name: "", kind:, song_id:, invitation: digest(secret), expires_at: now + LIFE_SECONDS)
    end
    [secret, row]
  end

  # Gives a key a name of the user's own.
  # @return [Boolean] whether there is one
  def rename(id, name)
    Database.write do
      KeyRow.where(id:).update_all(name: KindSatchel::PlainText.line(name).strip[0, LONGEST_NAME])
    end.positive?
  end

  # @param secret [String] of an invitation
  # @param from [String] the address it comes from
  # @param device [String] what kind of device it is
  # @return [Array(String, Key)] the device's key
  # @raise [Wrong], [TooMany]
  def enter(secret, from:, device:)
    counted(from)
    token = SecureRandom.urlsafe_base64(32)
    row = Database.write do
      row = KeyRow.find_by(invitation: digest(secret.to_s))
      raise Wrong if row.nil? || row.entered_at || row.expires_at < now

      row.update!(invitation: nil, digest: digest(token), entered_at: now, seen_at: now,
                  device: device[0, LONGEST_NAME])
      row
    end
    @lock.synchronize { @tries.delete(from) }
    [token, key(row)]
  end

  # @param seen [Boolean] whether it is written down that the device was here
  # @return [Key, nil]
  def find(token, seen: true)
    return if token.to_s.empty?

    wanted = digest(token)
    key, seen_at, end_at = @lock.synchronize { @known[wanted] }
    return key if key && now - seen_at < SEEN_SECONDS && now < end_at

    look_up(wanted, seen)
  end

  # @param id [Integer]
  # @return [Boolean] whether a key is still there and not too old
  def good?(id) = Database.guarded { KeyRow.where(id:).where("entered_at >= ?", now - KEPT_SECONDS).exists? }

  # @return [Array<Hash>] the ones in use, and invitations that are still good
  def list
    Database.guarded do
      KeyRow.where("entered_at >= ? OR expires_at >= ?", now - KEPT_SECONDS, now).order(:id).map(&:entry)
    end
  end

  # @return [Boolean] whether there was one
  def withdraw(id)
    @lock.synchronize { @known.clear }
    Database.write { KeyRow.where(id:).delete_all }.positive?
  end

  private

  def key(row) = Key.new(row.id, row.kind, row.song_id)

  def look_up(wanted, seen)
    row = Database.guarded { KeyRow.where("entered_at >= ?", now - KEPT_SECONDS).find_by(digest: wanted) } or return
    return key(row) unless seen

    Database.write { row.update!(seen_at: now) }
    @lock.synchronize { @known[wanted] = [key(row), now, row.entered_at + KEPT_SECONDS] }
    key(row)
  end

  # A try counts until the key was right.
  def counted(from)
    @lock.synchronize do
      @tries.delete_if { |_, times| times.last && times.last < now - TRIES_SECONDS }
      times = @tries[from].tap { |list| list.reject! { |time| time < now - TRIES_SECONDS } }
      raise TooMany if times.size >= MOST_TRIES

      times << now
    end
  end

  def digest(secret) = Digest::SHA256.hexdigest(secret)
  def now = @clock.call
end
