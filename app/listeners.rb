# frozen_string_literal: true

# Open tabs that want to know when a song changes: server-sent events over sockets taken over from the web server, so
# that a waiting tab costs no thread.
class Listeners
  HEAD = "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nCache-Control: no-store\r\nConnection: close\r\n\r\nretry: 1000\n\n"
  HEARTBEAT_SECONDS = 15

  def initialize
    @sockets = Hash.new { |all, id| all[id] = [] }
    @lock = Mutex.new
  end

  # @param socket [IO]
  def add(song_id, socket, revision)
    socket.write(HEAD)
    send_to(socket, "standing", { revision: })
    @lock.synchronize { @sockets[song_id] << socket }
    start_heartbeat
  rescue SystemCallError, IOError
    socket.close
  end

  # @param tab [String, nil] the tab that made the change and knows of it already
  def tell(song_id, revision:, words:, tab:)
    sockets = @lock.synchronize { @sockets[song_id].dup }
    gone = sockets.reject { |socket| send_to(socket, "changed", { revision:, words:, tab: }) }
    drop(gone)
  end

  private

  def start_heartbeat
    @start_heartbeat ||= Thread.new do
      loop do
        sleep HEARTBEAT_SECONDS
        drop(@lock.synchronize { @sockets.values.flatten }.reject { |socket| write(socket, ": still here\n\n") })
      end
    end
  end

  def send_to(socket, event, data) = write(socket, "event: #{event}\ndata: #{JSON.generate(data)}\n\n")

  # Never waits: a tab that does not read is dropped.
  def write(socket, text)
    socket.write_nonblock(text)
    true
  rescue IO::WaitWritable, SystemCallError, IOError
    false
  end

  def drop(gone)
    return if gone.empty?

    @lock.synchronize { @sockets.each_value { |list| list.reject! { |socket| gone.include?(socket) } } }
    gone.each { |socket| socket.close unless socket.closed? }
  end
end
