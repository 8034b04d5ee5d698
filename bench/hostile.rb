# frozen_string_literal: true

require_relative "hostile_files"

# What wrong and hostile files cost: the most memory the server and its workers hold above what they held at rest, and how each is
# answered.
class Hostile
  def initialize(server)
    @server = server
  end

  # @return [Hash] by file: megabytes above rest, and the status of the answer
  def measure
    HostileFiles::ALL.to_h do |name, (path, type, make)|
      body = make.call
      GC.start
      [name, sent(path, type, body)]
    end
  end

  private

  def sent(path, type, body)
    rest = held
    most = rest
    status = nil
    asking = Thread.new { status = @server.status_of(path, body, type) }
    while asking.alive?
      most = [most, held].max
      sleep 0.02
    end
    "#{most - rest} MB, #{status}"
  end

  # Megabytes of the server and of the processes it has begun.
  def held
    pids = [@server.pid, *children(@server.pid)]
    pids.sum { |pid| File.read("/proc/#{pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024 rescue 0 } # rubocop:disable Style/RescueModifier
  end

  def children(pid)
    Dir["/proc/#{pid}/task/*/children"].flat_map { |path| File.read(path).split.map(&:to_i) }.flat_map { |child| [child, *children(child)] }
  rescue SystemCallError
    []
  end
end
